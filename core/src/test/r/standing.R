# Expected levels of a standing, by R's weighted least squares. Made with R 4.2.2:
#   Rscript core/src/test/r/standing.R core/src/test/resources/yarrowmark/core/standing/standing-expected.csv
# The grid is made by the same small generator here and in StandingAgainstRTest, so no data file is needed.
# The last line printed is the time of the fit alone, in ms.
arguments <- commandArgs(trailingOnly = TRUE)
rows <- 400
columns <- 40
state <- 20261125
draw <- function() {
  state <<- (state * 16807) %% 2147483647
  state / 2147483647
}
y <- numeric(0); i <- integer(0); j <- integer(0)
weight <- sapply(1:columns, function(c) 0.5 + draw())
for (r in 1:rows) {
  speed <- 2 * draw()
  for (c in 1:columns) {
    value <- speed + c / 10 + 0.3 * draw()
    if (draw() < 0.7 || c == 1 + (r - 1) %% columns) {
      y <- c(y, value); i <- c(i, r); j <- c(j, c)
    }
  }
}
start <- proc.time()[["elapsed"]]
fit <- lm(y ~ factor(i) + factor(j), weights = weight[j])
took <- 1000 * (proc.time()[["elapsed"]] - start)
level <- c(0, coef(fit)[2:rows])
if (length(arguments) > 0) writeLines(formatC(level, digits = 15, format = "g"), arguments[1])
cat(took, "\n")
