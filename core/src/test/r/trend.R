# A metric along twelve steps in R alone: section 7 of the method. Made in this folder with R 4.2.2 by
#   Rscript trend.R > ../resources/yarrowmark/core/trend/trend-expected.csv
# The runs are made by the same small generator here and in TrendAgainstRTest, so no data file is needed.
options(digits = 17)
state <- 20261127
draw <- function() {
  state <<- (state * 16807) %% 2147483647
  state / 2147483647
}
steps <- 12
runs <- lapply(1:steps, function(i) sapply(1:(3 + i %% 3), function(r) (if (i > 7) 106 else 100) * (1 + 0.05 * (draw() - 0.5))))
merit <- lapply(runs, log)
means <- sapply(merit, mean)
tests <- lapply(2:steps, function(i) t.test(merit[[i]], merit[[i - 1]]))
delta <- diff(means)
error <- sapply(tests, function(t) t$stderr)
df <- sapply(tests, function(t) t$parameter)
# The series lends what its steps scatter.
D <- 0.37 * (steps - 1)
lambda2 <- (4 + D * (median(abs(delta / error)) / 0.6744897502)^2) / (4 + D)
error <- error * sqrt(lambda2)
df <- df + D
p <- 2 * pt(-abs(delta) / error, df)
bh <- p.adjust(p, "BH")
ends <- rbind(exp(delta - qt(0.975, df) * error), exp(delta + qt(0.975, df) * error))
out <- function(what, values) cat(paste(c(what, trimws(formatC(values, digits = 17, format = "g"))), collapse = ","), "\n", sep = "")
out("p", p)
out("bh", bh)
out("low", ends[1, ])
out("high", ends[2, ])
# Theil and Sen: the median of all slopes; its interval from the variance of Kendall's S.
pairs <- combn(steps, 2)
slopes <- sort((means[pairs[2, ]] - means[pairs[1, ]]) / (pairs[2, ] - pairs[1, ]))
wide <- qnorm(0.975) * sqrt(steps * (steps - 1) * (2 * steps + 5) / 18)
out("slope", c(median(slopes), slopes[floor((length(slopes) - wide) / 2)], slopes[ceiling((length(slopes) + wide) / 2) + 1]))
# The one change of level: the best split of two weighted means, by the spread that all steps share.
degrees <- sum(sapply(merit, length) - 1)
shared <- sum(sapply(merit, function(m) sum((m - mean(m))^2))) / degrees
variances <- lambda2 * shared / sapply(merit, length)
split <- function(k) {
  l <- 1:k; r <- (k + 1):steps
  d <- weighted.mean(means[r], 1 / variances[r]) - weighted.mean(means[l], 1 / variances[l])
  e <- sqrt(1 / sum(1 / variances[l]) + 1 / sum(1 / variances[r]))
  c(abs(d) / e, d, d - qt(0.975, degrees) * e, d + qt(0.975, degrees) * e)
}
all <- sapply(1:(steps - 1), split)
best <- which.max(all[1, ])
out("change", c(best, all[2:4, best]))
