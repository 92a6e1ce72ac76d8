package yarrowmark.core.stats;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.apache.commons.statistics.distribution.ChiSquaredDistribution;
import org.apache.commons.statistics.distribution.FDistribution;

/**
 * Bounds what one session that went wrong may say about the days of all others.
 *
 * <p>For each configuration measured again, over the others o: base = (Σₒ(kₒ − 1) min(varₒ, χ²₀.₉₉(kₒ − 1)/(kₒ − 1) T₀ₒ) + P
 * T₀ᵢ) / (Σₒ(kₒ − 1) + P), and var′ᵢ = min(varᵢ, base F₀.₉₉(kᵢ − 1, P + Σₒ(kₒ − 1))); T₀ᵢ is what is expected beforehand.
 * Where nothing is expected, nothing is bounded. Source: section 11 of the method.
 */
final class OddSessions {
    /** One in a hundred sound ones is beyond. */
    private static final double BEYOND = 0.01;

    private static final Map<Long, Double> RATIOS = new HashMap<>();

    private OddSessions() {}

    /**
     * @param k        sessions, 2 or more
     * @param variance of their means
     * @param expected s₀² + s̃² mean(1/n); NaN where unknown
     */
    record Repeated(int k, double variance, double expected) {}

    /** var′ of each, in order. */
    static double[] bounded(List<Repeated> all) {
        double squares = 0;
        int degrees = 0;
        for (Repeated r : all) {
            squares += (r.k - 1) * capped(r);
            degrees += r.k - 1;
        }
        double[] bounded = new double[all.size()];
        for (int i = 0; i < bounded.length; i++) {
            Repeated r = all.get(i);
            int others = degrees - (r.k - 1) + SessionNoise.BELIEF;
            double base = (squares - (r.k - 1) * capped(r) + SessionNoise.BELIEF * r.expected) / others;
            double most = base * mostRatio(r.k - 1, others);
            bounded[i] = r.variance > most ? most : r.variance;
        }
        return bounded;
    }

    private static double capped(Repeated r) {
        double most = ChiSquaredDistribution.of(r.k - 1).inverseSurvivalProbability(BEYOND) / (r.k - 1) * r.expected;
        return r.variance > most ? most : r.variance;
    }

    /** F₀.₉₉: how many times as large as the rest a variance may be. */
    static double mostRatio(int degrees, int ofOthers) {
        synchronized (RATIOS) {
            return RATIOS.computeIfAbsent((long) degrees << 32 | ofOthers, x -> FDistribution.of(degrees, ofOthers)
                    .inverseSurvivalProbability(BEYOND));
        }
    }
}
