# Compares every configuration of an exported ledger with the first one, in R alone: sections 1 to 4 of the method.
# What it prints is kept as src/test/resources/yarrowmark/server/analysis/compare-expected.csv, made in this folder by
#   Rscript compare.R ../resources/yarrowmark/server/analysis/compare-readings.csv > ../resources/yarrowmark/server/analysis/compare-expected.csv
# with R 4.2.2. CompareAgainstRTest holds the program's answers against it.
options(digits = 17)
readings <- read.csv(commandArgs(trailingOnly = TRUE)[1], check.names = FALSE, stringsAsFactors = FALSE, colClasses = c("fact:firmware.version" = "character"))
# In this export the firmware alone tells the configurations apart.
readings$configuration <- readings[["fact:firmware.version"]]
readings <- subset(readings, counted == "yes" & scale == "ratio")
materiality <- log(1.03)
readings$merit <- ifelse(readings$direction == "more", 1, -1) * log(readings$value)
readings$rounding <- (readings$resolution / readings$value)^2
sample_of <- function(rows) {
  n <- nrow(rows)
  list(n = n, mean = mean(rows$merit), f = mean(rows$rounding) / 12, s2 = if (n > 1) max(var(rows$merit), mean(rows$rounding) / 12) else NA)
}
configurations <- unique(readings$configuration)
tests <- unique(readings$test)
samples <- lapply(setNames(tests, tests), function(t) lapply(setNames(configurations, configurations), function(k) {
  rows <- readings[readings$test == t & readings$configuration == k, ]
  if (nrow(rows) == 0) NULL else sample_of(rows)
}))

prior_of <- function(all) {
  known <- Filter(function(s) !is.null(s) && s$n > 1 && s$s2 > 0, all)
  if (length(known) < 3) return(NULL)
  d <- sapply(known, function(s) s$n - 1)
  s2 <- sapply(known, function(s) s$s2)
  e <- log(s2) - digamma(d / 2) + log(d / 2)
  v <- var(e) - mean(trigamma(d / 2))
  if (v > 0) {
    d0 <- 2 * exp(uniroot(function(x) log(trigamma(exp(x))) - log(v), c(-20, 20), tol = 1e-14, maxiter = 10000)$root)
    s0 <- exp(mean(e) + digamma(d0 / 2) - log(d0 / 2))
  } else {
    d0 <- Inf
    s0 <- sum(d * s2) / sum(d)
  }
  list(d0 = min(d0, 30, sum(d) / 3), s2 = s0)
}
whole <- prior_of(unlist(samples, recursive = FALSE))
priors <- lapply(samples, function(of) { own <- prior_of(of); if (is.null(own)) whole else own })

working <- function(s, prior) {
  d <- s$n - 1
  own <- if (d > 0) d * s$s2 else 0
  # Rounding does not average out over runs; a single run counts with half of the lent degrees of freedom.
  # Nobody was measured on a second day, so days are taken to differ as much as runs do, which is worth four sessions.
  list(v = max((prior$d0 * prior$s2 + own) / (prior$d0 + d) / s$n, s$f - prior$s2), day = prior$s2, d = if (d > 0) prior$d0 + d else prior$d0 / 2)
}
verdict <- function(delta, half) {
  apart <- abs(delta) > half
  if (apart && delta >= materiality) "CLEAR_GAIN" else if (apart && delta <= -materiality) "CLEAR_LOSS"
  else if (delta - half > -materiality && delta + half < materiality) "LEVEL"
  else if (apart) (if (delta > 0) "SMALL_GAIN" else "SMALL_LOSS") else "CANNOT_TELL"
}
line <- function(name, test, delta, v, df) {
  half <- qt(0.975, df) * sqrt(v)
  cat(paste(name, test, format(exp(delta)), format(exp(delta - half)), format(exp(delta + half)), verdict(delta, half), sep = ","), "\n", sep = "")
}
cat("configuration,test,ratio,low,high,verdict\n")
base <- configurations[1]
group <- tapply(readings$group, readings$test, unique)
for (other in configurations[-1]) {
  both <- Filter(function(t) !is.null(samples[[t]][[base]]) && !is.null(samples[[t]][[other]]), tests)
  # Spread over what the two share, and over nothing else.
  weight <- sapply(both, function(t) 1 / sum(group[both] == group[t]))
  weight <- weight / sum(weight)
  delta <- 0; v <- 0; parts <- 0; q <- 0
  for (t in both) {
    a <- working(samples[[t]][[other]], priors[[t]])
    b <- working(samples[[t]][[base]], priors[[t]])
    d <- samples[[t]][[other]]$mean - samples[[t]][[base]]$mean
    days <- a$day + b$day
    line(other, t, d, a$v + b$v + days, (a$v + b$v + days)^2 / (a$v^2 / a$d + b$v^2 / b$d + days^2 / 4))
    delta <- delta + weight[[t]] * d
    v <- v + weight[[t]]^2 * (a$v + b$v)
    q <- q + weight[[t]] * sqrt(days)
    parts <- parts + weight[[t]]^4 * (a$v^2 / a$d + b$v^2 / b$d)
  }
  # A day that nobody knows is taken to move all tests alike.
  line(other, "Overall", delta, v + q^2, (v + q^2)^2 / (parts + q^4 / 4))
}
