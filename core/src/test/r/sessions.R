# Compares configurations that were measured in several sessions, in R alone: sections 1 to 4 and 11 of the method.
# What it prints is kept as src/test/resources/yarrowmark/core/stats/sessions-expected.csv, made in this folder by
#   Rscript sessions.R ../resources/yarrowmark/core/stats/sessions-readings.csv > ../resources/yarrowmark/core/stats/sessions-expected.csv
# with R 4.2.2. All tests are of one suite version. SessionsAgainstRTest holds the core's answers against it.
options(digits = 17)
r <- read.csv(commandArgs(trailingOnly = TRUE)[1], stringsAsFactors = FALSE)
r$merit <- ifelse(r$direction == "more", 1, -1) * log(r$value)
r$rounding <- (r$resolution / r$value)^2
tests <- unique(r$test)
configurations <- unique(r$configuration)
cell <- function(t, k) {
  rows <- r[r$test == t & r$configuration == k, ]
  if (nrow(rows) == 0) return(NULL)
  by <- split(rows, rows$session)
  n <- sapply(by, nrow)
  mean <- sapply(by, function(x) mean(x$merit))
  within <- sum(sapply(by, function(x) sum((x$merit - mean(x$merit))^2)))
  d <- nrow(rows) - length(by)
  f <- mean(rows$rounding) / 12
  list(session = names(by), n = n, mean = mean, d = d, f = f, s2 = if (d > 0) max(within / d, f) else NA)
}
cells <- lapply(setNames(tests, tests), function(t) Filter(Negate(is.null), lapply(setNames(configurations, configurations), function(k) cell(t, k))))
prior_of <- function(all) {
  known <- Filter(function(s) s$d > 0 && s$s2 > 0, all)
  if (length(known) < 3) return(NULL)
  d <- sapply(known, function(s) s$d)
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
whole <- prior_of(unlist(cells, recursive = FALSE))
priors <- lapply(cells, function(of) { own <- prior_of(of); if (is.null(own)) whole else own })
working <- function(s, p) if (s$d > 0) list(v = (p$d0 * p$s2 + s$d * s$s2) / (p$d0 + s$d), d = p$d0 + s$d) else list(v = p$s2, d = p$d0 / 2)

# Between sessions: four pseudo-sessions in which days differ as much as runs do.
P <- 4
spread <- function(t) lapply(Filter(function(s) length(s$n) > 1, cells[[t]]), function(s) {
  w <- working(s, priors[[t]])$v
  list(k = length(s$n), v = var(s$mean), m = mean(1 / s$n), w = w, T0 = priors[[t]]$s2 + w * mean(1 / s$n))
})
spreads <- lapply(setNames(tests, tests), spread)
own <- lapply(setNames(tests, tests), function(t) {
  many <- spreads[[t]]
  if (length(many) == 0) return(list(D = 0, raw = 0, c = 0))
  k1 <- sapply(many, function(s) s$k - 1)
  v <- sapply(many, function(s) s$v)
  T0 <- sapply(many, function(s) s$T0)
  capped <- pmin(v, qchisq(0.99, k1) / k1 * T0)
  bounded <- sapply(seq_along(v), function(i) {
    others <- sum(k1[-i])
    base <- (sum((k1 * capped)[-i]) + P * T0[i]) / (others + P)
    min(v[i], base * qf(0.99, k1[i], P + others))
  })
  runs <- sapply(many, function(s) s$w * s$m)
  list(D = sum(k1), raw = sum(k1 * (bounded - runs)) / sum(k1), c = sum(k1 * runs))
})
e <- sum(sapply(configurations, function(k) max(0, sapply(tests, function(t) length(cells[[t]][[k]]$n) - 1))))
days <- lapply(setNames(tests, tests), function(t) {
  o <- own[[t]]
  others <- Filter(function(u) u != t && own[[u]]$D > 0, tests)
  H <- if (length(others) == 0) 0 else min(8, e)
  rho <- if (length(others) == 0) 0 else max(0, sum(sapply(others, function(u) own[[u]]$D * own[[u]]$raw / priors[[u]]$s2)) / sum(sapply(others, function(u) own[[u]]$D)))
  all <- o$D + H + P
  list(v = max(0, (o$D * o$raw + H * rho * priors[[t]]$s2 + P * priors[[t]]$s2) / all), d = all, c = o$c / all, D = o$D)
})
# How far a day moves tests together. Tests that were not measured in the same sessions count with the number of each.
seen <- 0; expected <- 0
for (k in configurations) {
  many <- Filter(function(t) !is.null(cells[[t]][[k]]) && length(cells[[t]][[k]]$n) > 1, tests)
  for (s in unique(r$session[r$configuration == k])) {
    of <- Filter(function(t) s %in% cells[[t]][[k]]$session, many)
    if (length(of) < 2) next
    dev <- sapply(of, function(t) {
      x <- cells[[t]][[k]]; k1 <- length(x$n) - 1
      bound <- sqrt(qf(0.99, k1, P + days[[t]]$D - k1) * (days[[t]]$v + working(x, priors[[t]])$v * mean(1 / x$n)))
      max(-bound, min(bound, x$mean[x$session == s] - mean(x$mean)))
    })
    q <- sapply(of, function(t) sqrt(days[[t]]$v * (1 - 1 / length(cells[[t]][[k]]$n))))
    for (i in seq_along(of)) for (j in seq_along(of)) if (i < j) {
      seen <- seen + dev[i] * dev[j]
      expected <- expected + q[i] * q[j]
    }
  }
}
kappa <- (e * min(1, max(0, seen / expected)) + 4) / (e + 4)

centre <- function(t, k) {
  s <- cells[[t]][[k]]
  w <- working(s, priors[[t]])
  k <- length(s$n)
  between <- days[[t]]$v
  if (k > 1) {
    m <- min(8, days[[t]]$d)
    between <- max(between, (m * between + (k - 1) * max(0, var(s$mean) - w$v * mean(1 / s$n))) / (m + k - 1))
  }
  u <- if (between > 0) 1 / (between + w$v / s$n) else s$n
  u <- u / sum(u)
  part <- between * sum(u^2)
  list(m = sum(u * s$mean), runs = max(w$v * sum(u^2 / s$n), s$f - part), d = w$d, uu = sum(u^2), part = part)
}
line <- function(name, test, delta, v, df) {
  half <- qt(0.975, max(1, df)) * sqrt(v)
  cat(paste(name, test, format(exp(delta)), format(exp(delta - half)), format(exp(delta + half)), format(df), sep = ","), "\n", sep = "")
}
cat("configuration,test,ratio,low,high,df\n")
for (other in configurations[-1]) {
  both <- Filter(function(t) !is.null(cells[[t]][["a"]]) && !is.null(cells[[t]][[other]]), tests)
  w <- 1 / length(both)
  delta <- 0; runs <- 0; parts <- 0; q <- c()
  for (t in both) {
    a <- centre(t, other); b <- centre(t, "a")
    v <- a$runs + b$runs; p <- a$runs^2 / a$d + b$runs^2 / b$d
    sess <- a$part + b$part
    last <- (sess + (a$uu + b$uu) * days[[t]]$c)^2 / days[[t]]$d
    line(other, t, a$m - b$m, v + sess, (v + sess)^2 / (p + last))
    delta <- delta + w * (a$m - b$m); runs <- runs + w^2 * v; parts <- parts + w^4 * p
    q <- c(q, w * sqrt(sess))
  }
  shared <- (1 - kappa) * sum(q^2) + kappa * sum(q)^2
  line(other, "Overall", delta, runs + shared, (runs + shared)^2 / (parts + shared^2 / (e + P)))
}
cat(paste("kappa", "all", format(kappa), "0", "0", e, sep = ","), "\n", sep = "")
