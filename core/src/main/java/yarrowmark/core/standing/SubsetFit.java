package yarrowmark.core.standing;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;

/**
 * What some of a standing's metrics alone would have told: levels and their variances for any subset, beside the pairs that all
 * of them tell apart. Sections 5 and 10 of the method.
 */
public final class SubsetFit {
    private final MeritGrid grid;
    private final double[] weight;
    private final StandingFit whole;
    /** Rows that take part. */
    private final BitSet rows = new BitSet();
    /** Metrics that every one of these rows has: of them a level is a weighted mean, and nothing needs to be solved. */
    private final BitSet complete = new BitSet();

    private final double[][] merit;

    /** @param better has more merit than worse, on all metrics, beyond what noise explains */
    public record ClearPair(int better, int worse) {}

    /** By row: what the subset would say of it, NaN where it says nothing; differences alone mean something. */
    public record Levels(double[] level, double[] variance) {}

    /** @param weights one a column, 0 or more, not all 0; scaled here to sum to 1 */
    public SubsetFit(MeritGrid all, double[] weights) {
        this.weight = Ranking.scaled(weights, all.columns());
        for (int r = 0; r < all.rows(); r++) {
            double has = 0;
            for (int c = all.start(r); c < all.end(r); c++) {
                has += weight[all.column(c)];
            }
            rows.set(r, Ranking.isEnough(has));
        }
        this.grid = all.rows(rows);
        if (rows.isEmpty()) {
            throw new IllegalArgumentException("no configuration has half of the weight");
        }
        this.whole = Ranking.fitted(grid, weight, Reference.typical());
        this.merit = new double[grid.rows()][grid.columns()];
        int[] having = new int[grid.columns()];
        for (int r = 0; r < grid.rows(); r++) {
            Arrays.fill(merit[r], Double.NaN);
            for (int c = grid.start(r); c < grid.end(r); c++) {
                merit[r][grid.column(c)] = grid.merit(c);
                having[grid.column(c)]++;
            }
        }
        for (int j = 0; j < having.length; j++) {
            complete.set(j, having[j] == rows.cardinality());
        }
    }

    public int metrics() {
        return grid.columns();
    }

    public boolean hasWeight(int metric) {
        return weight[metric] > 0;
    }

    /** Configurations that have at least half of the weight. */
    public BitSet rows() {
        return (BitSet) rows.clone();
    }

    public double tauSquared() {
        return whole.tauSquared();
    }

    /** NaN where there is no result. */
    public double merit(int row, int metric) {
        return merit[row][metric];
    }

    /** Pairs that all metrics tell apart: only by them can a subset be judged. */
    public List<ClearPair> clearPairs() {
        List<ClearPair> pairs = new ArrayList<>();
        LevelNoise[] noise = new LevelNoise[grid.rows()];
        for (int r = rows.nextSetBit(0); r >= 0; r = rows.nextSetBit(r + 1)) {
            noise[r] = whole.linked().hasRow(r) ? whole.noise(r) : LevelNoise.NONE;
        }
        LevelNoise.Degrees degrees = whole.degrees();
        for (int i = rows.nextSetBit(0); i >= 0; i = rows.nextSetBit(i + 1)) {
            for (int k = rows.nextSetBit(i + 1); k >= 0; k = rows.nextSetBit(k + 1)) {
                if (whole.linked().hasRow(i) && whole.linked().hasRow(k)) {
                    boolean first = whole.level(i) > whole.level(k);
                    if (LevelNoise.isClear(Math.abs(whole.level(i) - whole.level(k)), noise[i], noise[k], degrees)) {
                        pairs.add(first ? new ClearPair(i, k) : new ClearPair(k, i));
                    }
                }
            }
        }
        return pairs;
    }

    /** @param subset metrics with weight, at least one */
    public Levels of(BitSet subset) {
        double[] among = new double[weight.length];
        subset.stream().forEach(j -> among[j] = weight[j]);
        double total = Arrays.stream(among).sum();
        if (!(total > 0)) {
            throw new IllegalArgumentException("a subset has at least one metric with weight");
        }
        double[] level = new double[grid.rows()];
        double[] variance = new double[grid.rows()];
        Arrays.fill(level, Double.NaN);
        BitSet gaps = (BitSet) subset.clone();
        gaps.andNot(complete);
        StandingFit fit = gaps.isEmpty() ? null : fitted(among, total);
        for (int r = rows.nextSetBit(0); r >= 0; r = rows.nextSetBit(r + 1)) {
            level[r] = fit == null ? mean(r, among, total) : fit.linked().hasRow(r) ? fit.level(r) : Double.NaN;
            variance[r] = whole.noise(r, among).variance();
        }
        return new Levels(level, variance);
    }

    private double mean(int row, double[] among, double total) {
        double sum = 0;
        for (int j = 0; j < among.length; j++) {
            sum += among[j] > 0 ? among[j] * merit[row][j] : 0;
        }
        return sum / total;
    }

    private StandingFit fitted(double[] among, double total) {
        double[] scaled = Arrays.stream(among).map(w -> w / total).toArray();
        return new StandingFit(grid, scaled, ConnectedComponent.homeOfLargest(grid, scaled));
    }
}
