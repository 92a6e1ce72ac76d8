package yarrowmark.core.standing;

import yarrowmark.core.stats.StudentT;

/**
 * How well the level of a configuration is known, in the parts whose degrees of freedom differ. The parts of sessions and
 * of tests rest on estimates that all configurations share, so of a difference they are added up first.
 *
 * @param runs         Σ w*² v of runs
 * @param runsByDegree Σ (w*² v)²/d of them
 * @param sessions     what sessions add
 * @param tests        τ² max(0, Σ w*² − Σ w²)
 */
public record LevelNoise(double runs, double runsByDegree, double sessions, double tests) {
    static final LevelNoise NONE = new LevelNoise(0, 0, 0, 0);

    /** @param sessions e. @param tests N − p. Each 1 or more where it is needed */
    record Degrees(double sessions, double tests) {}

    /** Half of each, as for a value that lies between two. */
    static LevelNoise mean(LevelNoise a, LevelNoise b) {
        return new LevelNoise(
                (a.runs + b.runs) / 2,
                (a.runsByDegree + b.runsByDegree) / 4,
                (a.sessions + b.sessions) / 2,
                (a.tests + b.tests) / 2);
    }

    public double variance() {
        return runs + sessions + tests;
    }

    /** Of a difference of two levels. */
    static double variance(LevelNoise a, LevelNoise b) {
        return a.variance() + b.variance();
    }

    /** Satterthwaite over the terms of both, at least 1. */
    static double degrees(LevelNoise a, LevelNoise b, Degrees degrees) {
        double sessions = a.sessions + b.sessions;
        double tests = a.tests + b.tests;
        double terms = a.runsByDegree
                + b.runsByDegree
                + sessions * sessions / degrees.sessions()
                + tests * tests / degrees.tests();
        double variance = variance(a, b);
        return terms == 0 ? Double.POSITIVE_INFINITY : Math.max(1, variance * variance / terms);
    }

    /** Whether a level is clearly above another. @param apart by how much, 0 or more */
    static boolean isClear(double apart, LevelNoise a, LevelNoise b, Degrees degrees) {
        return StudentT.isBeyond(apart, Math.sqrt(variance(a, b)), degrees(a, b, degrees));
    }
}
