package yarrowmark.core.standing;

import java.util.Arrays;
import java.util.stream.IntStream;
import org.apache.commons.rng.UniformRandomProvider;
import org.apache.commons.rng.sampling.distribution.DirichletSampler;
import org.apache.commons.rng.simple.RandomSource;

/**
 * How firm the top of a standing is: in what share of random weightings each configuration comes first.
 *
 * <p>The purpose weighs parts (groups, or suites or tests where there is one group only). Each weighting draws the shares
 * of the parts from a Dirichlet distribution with parameters concentration × share, so its mean is the purpose; inside a
 * part weights keep their proportions. Each weighting is fitted anew, from the answer of the purpose on.
 *
 * <p>Only configurations that are placed for the purpose can come first. Edge cases: one part alone leaves nothing to draw,
 * and its first comes first always. The same seed gives the same shares. Accuracy: a share p of n weightings has a standard
 * error of √(p (1 − p) / n), 1.6 % of the whole at most with 1,000. Source: section 5 of the method for the fit; N. L.
 * Johnson and S. Kotz, "Continuous Multivariate Distributions", 1972, for the Dirichlet distribution.
 *
 * @param shares        by row of the grid: how often it comes first, 0 to 1; they sum to 1
 * @param weightings    how many were drawn
 * @param concentration the larger, the nearer to the purpose
 */
public record RankFirmness(double[] shares, int weightings, double concentration) {
    /** With 20, a part of a quarter of the weight varies between 9 and 45 % in 95 of 100 weightings. */
    public static final double CONCENTRATION = 20;

    public static final int WEIGHTINGS = 1_000;
    private static final long SEED = 2;
    /** Six digits of a level tell who is first; the rest of the fit's nine would double the time. */
    private static final double NEAR_ENOUGH = 1e-7;

    /** @param part of each column: columns of the same number share their part's weight */
    public static RankFirmness of(MeritGrid grid, double[] weights, int[] part, Reference reference) {
        double[] weight = Ranking.scaled(weights, grid.columns());
        StandingFit purpose = Ranking.fitted(grid, weight, reference);
        boolean[] placed = new boolean[grid.rows()];
        for (int r = 0; r < placed.length; r++) {
            placed[r] = purpose.linked().hasRow(r) && Ranking.isPlaced(purpose, r);
        }
        double[] share = new double[1 + Arrays.stream(part).max().orElse(0)];
        for (int j = 0; j < weight.length; j++) {
            share[part[j]] += weight[j];
        }
        int[] drawn = IntStream.range(0, share.length).filter(p -> share[p] > 0).toArray();
        double[][] weightings = drawn.length < 2 ? new double[][] {weight} : draw(weight, part, share, drawn);
        int[] first = Arrays.stream(weightings)
                .parallel()
                .mapToInt(w -> first(grid, w, purpose, placed))
                .toArray();
        int[] times = new int[grid.rows()];
        for (int row : first) {
            if (row >= 0) {
                times[row]++;
            }
        }
        return new RankFirmness(
                Arrays.stream(times).mapToDouble(n -> n / (double) first.length).toArray(),
                first.length,
                CONCENTRATION);
    }

    private static double[][] draw(double[] weight, int[] part, double[] share, int[] drawn) {
        UniformRandomProvider random = RandomSource.XO_RO_SHI_RO_128_PP.create(SEED);
        DirichletSampler sampler = DirichletSampler.of(
                random,
                Arrays.stream(drawn).mapToDouble(p -> CONCENTRATION * share[p]).toArray());
        double[][] weightings = new double[WEIGHTINGS][];
        for (int i = 0; i < WEIGHTINGS; i++) {
            double[] shares = sampler.sample();
            double[] factor = new double[share.length];
            for (int d = 0; d < drawn.length; d++) {
                // A part never quite vanishes: without it, islands could fall off.
                factor[drawn[d]] = Math.max(shares[d], 1e-9) / share[drawn[d]];
            }
            double[] w = new double[weight.length];
            for (int j = 0; j < w.length; j++) {
                w[j] = weight[j] * factor[part[j]];
            }
            weightings[i] = Ranking.scaled(w, w.length);
        }
        return weightings;
    }

    /** −1 where nothing is placed. */
    private static int first(MeritGrid grid, double[] weight, StandingFit purpose, boolean[] placed) {
        double[] ofMetric = new double[purpose.cells().metrics];
        for (int j = 0; j < weight.length; j++) {
            if (purpose.linked().columnPosition(j) >= 0) {
                ofMetric[purpose.linked().columnPosition(j)] = weight[j];
            }
        }
        FlatCells cells = purpose.cells().weighed(ofMetric);
        double[] t = new MetricLevels(cells).iterated(purpose.metricLevels(), NEAR_ENOUGH);
        int first = -1;
        double best = Double.NEGATIVE_INFINITY;
        int row = 0;
        for (int r = 0; r < grid.rows(); r++) {
            if (!purpose.linked().hasRow(r)) {
                continue;
            }
            if (placed[r]) {
                double sum = 0;
                for (int c = cells.start[row]; c < cells.start[row + 1]; c++) {
                    sum += cells.weight[c] * (cells.merit[c] - t[cells.position[c]]);
                }
                if (sum / cells.total[row] > best) {
                    best = sum / cells.total[row];
                    first = r;
                }
            }
            row++;
        }
        return first;
    }

    public RankFirmness {
        shares = shares.clone();
    }

    @Override
    public double[] shares() {
        return shares.clone();
    }
}
