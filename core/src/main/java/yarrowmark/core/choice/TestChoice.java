package yarrowmark.core.choice;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import yarrowmark.core.standing.MeritGrid;
import yarrowmark.core.standing.SubsetFit;
import yarrowmark.core.standing.SubsetFit.ClearPair;
import yarrowmark.core.stats.StudentT;

/**
 * Which tests of a purpose are worth their time, from what was measured before: the order in which tests tell most per minute,
 * the best subset, and what either would say of a device that nobody has seen yet.
 *
 * <p>Formulas: section 10 of the method. <i>Surely</i> is the mean over the clear pairs of Φ(z), with z the difference that the
 * subset gives, in the order of the whole, over its standard error; <i>agreement</i> the share of the clear pairs that the
 * subset puts in the same order, equal ones half. A pair of which a subset says nothing counts half in both.
 *
 * <p>Edge cases: fewer than six configurations with half of the weight, or no clear pair: nothing is said. Not thread-safe.
 */
public final class TestChoice {
    /** Below so many configurations nothing is said. */
    public static final int FEWEST = 6;
    /** Below so many, what is said of a device not seen yet is rough. */
    public static final int ROUGH_BELOW = 12;
    /** The exact answer is found for so many tests. */
    public static final int MOST_EXACT = 20;

    private static final double NO_FIT_YET = 0.5;
    private static final double LEVEL = 1e-12;

    private final SubsetFit fit;
    /** Columns with weight of each test. */
    private final List<BitSet> columns;

    private final List<ClearPair> pairs;
    private final Map<BitSet, Told> known = new HashMap<>();

    /**
     * What is asked.
     *
     * @param minutes of each test, above 0, with its runs and pauses
     * @param atHand  minutes that there are
     * @param must    tests that are taken first, whatever they tell
     * @param never   tests that are not taken
     */
    public record Ask(double[] minutes, double atHand, BitSet must, BitSet never) {
        public static Ask of(double[] minutes, double atHand) {
            return new Ask(minutes, atHand, new BitSet(), new BitSet());
        }
    }

    /**
     * What a subset tells.
     *
     * @param same pairs in the order of the whole, equal ones half
     */
    public record Told(double surely, double same, int pairs) {
        public double agreement() {
            return same / pairs;
        }
    }

    /** A test that was added, and all so far. @param minutes of all so far */
    public record Step(int test, double minutes, Told told) {}

    /**
     * A device not seen yet.
     *
     * @param each agreement of each configuration when it is left out; NaN where no clear pair has it
     * @param low  of the 95 % interval of the mean, within 0 and 1
     */
    public record Unseen(double[] each, double mean, double low, double high, boolean rough) {}

    private TestChoice(SubsetFit fit, List<BitSet> columns, List<ClearPair> pairs) {
        this.fit = fit;
        this.columns = columns;
        this.pairs = pairs;
    }

    /** Each column is a test. */
    public static Optional<TestChoice> of(MeritGrid grid, double[] weights) {
        return of(grid, weights, IntStream.range(0, weights.length).toArray());
    }

    /**
     * @param weights of the purpose, one a column
     * @param testOf  which test a column belongs to, from 0: a test is taken with all its numbers
     * @return empty where too little was measured to say anything
     */
    public static Optional<TestChoice> of(MeritGrid grid, double[] weights, int[] testOf) {
        SubsetFit fit;
        try {
            fit = new SubsetFit(grid, weights);
        } catch (IllegalArgumentException nothingHasHalfOfTheWeight) {
            return Optional.empty();
        }
        List<BitSet> columns = new ArrayList<>();
        for (int j = 0; j < testOf.length; j++) {
            while (columns.size() <= testOf[j]) {
                columns.add(new BitSet());
            }
            columns.get(testOf[j]).set(j, fit.hasWeight(j));
        }
        List<ClearPair> pairs = fit.clearPairs();
        return fit.rows().cardinality() < FEWEST || pairs.isEmpty()
                ? Optional.empty()
                : Optional.of(new TestChoice(fit, columns, pairs));
    }

    public List<ClearPair> clearPairs() {
        return List.copyOf(pairs);
    }

    public double tauSquared() {
        return fit.tauSquared();
    }

    /** How many configurations take part. */
    public int configurations() {
        return fit.rows().cardinality();
    }

    /** Of a subset of the tests; none at all is a coin. */
    public Told told(BitSet tests) {
        return from(tests, pairs, known);
    }

    /** Clear pairs that a subset puts the other way round. */
    public List<ClearPair> turned(BitSet tests) {
        if (columnsOf(tests).isEmpty()) {
            return List.of();
        }
        double[] level = levels(tests).level();
        return pairs.stream().filter(p -> level[p.better()] < level[p.worse()]).toList();
    }

    private SubsetFit.Levels levels(BitSet tests) {
        return fit.of(columnsOf(tests));
    }

    private BitSet columnsOf(BitSet tests) {
        BitSet all = new BitSet();
        tests.stream().forEach(t -> all.or(columns.get(t)));
        return all;
    }

    private Told told(BitSet tests, List<ClearPair> among) {
        if (columnsOf(tests).isEmpty() || among.isEmpty()) {
            return new Told(NO_FIT_YET, among.size() / 2.0, among.size());
        }
        SubsetFit.Levels levels = levels(tests);
        double surely = 0;
        double same = 0;
        for (ClearPair p : among) {
            double apart = levels.level()[p.better()] - levels.level()[p.worse()];
            if (Double.isNaN(apart)) {
                surely += NO_FIT_YET;
                same += NO_FIT_YET;
                continue;
            }
            double variance = levels.variance()[p.better()] + levels.variance()[p.worse()];
            surely += variance > 0
                    ? NormalTable.below(apart / Math.sqrt(variance))
                    : apart > 0 ? 1 : apart < 0 ? 0 : NO_FIT_YET;
            same += apart > 0 ? 1 : apart < 0 ? 0 : NO_FIT_YET;
        }
        return new Told(surely / among.size(), same, among.size());
    }

    /** The must-haves in order of number, then whatever tells most per minute, as long as one fits into the minutes. */
    public List<Step> path(Ask ask) {
        checked(ask);
        return path(ask, pairs, known);
    }

    private List<Step> path(Ask ask, List<ClearPair> among, Map<BitSet, Told> kept) {
        List<Step> steps = new ArrayList<>();
        BitSet taken = new BitSet();
        double minutes = 0;
        for (int t = ask.must().nextSetBit(0); t >= 0; t = ask.must().nextSetBit(t + 1)) {
            taken.set(t);
            minutes += ask.minutes()[t];
            steps.add(new Step(t, minutes, from(taken, among, kept)));
        }
        while (true) {
            double now = from(taken, among, kept).surely();
            int best = -1;
            double most = Double.NEGATIVE_INFINITY;
            for (int t = 0; t < columns.size(); t++) {
                if (taken.get(t)
                        || ask.never().get(t)
                        || columns.get(t).isEmpty()
                        || minutes + ask.minutes()[t] > ask.atHand() + LEVEL) {
                    continue;
                }
                taken.set(t);
                double gain = (from(taken, among, kept).surely() - now) / ask.minutes()[t];
                taken.clear(t);
                boolean level = best >= 0 && Math.abs(gain - most) <= LEVEL;
                if (best < 0 || !level && gain > most || level && ask.minutes()[t] < ask.minutes()[best]) {
                    best = t;
                    most = gain;
                }
            }
            if (best < 0) {
                return steps;
            }
            taken.set(best);
            minutes += ask.minutes()[best];
            steps.add(new Step(best, minutes, from(taken, among, kept)));
        }
    }

    private Told from(BitSet tests, List<ClearPair> among, Map<BitSet, Told> kept) {
        Told there = kept.get(tests);
        if (there == null) {
            there = told(tests, among);
            kept.put((BitSet) tests.clone(), there);
        }
        return there;
    }

    /**
     * The subset within the minutes that tells most, of all that there are; of several as good the shortest.
     *
     * @throws IllegalArgumentException for more than {@link #MOST_EXACT} tests to choose from
     */
    public BitSet exact(Ask ask) {
        checked(ask);
        List<Integer> free = new ArrayList<>();
        for (int t = 0; t < columns.size(); t++) {
            if (!columns.get(t).isEmpty() && !ask.must().get(t) && !ask.never().get(t)) {
                free.add(t);
            }
        }
        if (free.size() > MOST_EXACT) {
            throw new IllegalArgumentException(
                    "the exact answer is found for up to " + MOST_EXACT + " tests, not " + free.size());
        }
        double already = ask.must().stream().mapToDouble(t -> ask.minutes()[t]).sum();
        BitSet best = (BitSet) ask.must().clone();
        double most = told(best, pairs).surely();
        double shortest = already;
        for (int choice = 1; choice < 1 << free.size(); choice++) {
            double minutes = already;
            for (int i = 0; i < free.size(); i++) {
                minutes += (choice >> i & 1) == 1 ? ask.minutes()[free.get(i)] : 0;
            }
            if (minutes > ask.atHand() + LEVEL) {
                continue;
            }
            BitSet tests = (BitSet) ask.must().clone();
            for (int i = 0; i < free.size(); i++) {
                if ((choice >> i & 1) == 1) {
                    tests.set(free.get(i));
                }
            }
            double surely = told(tests, pairs).surely();
            boolean level = Math.abs(surely - most) <= LEVEL;
            if (!level && surely > most || level && minutes < shortest) {
                best = tests;
                most = surely;
                shortest = minutes;
            }
        }
        return best;
    }

    /** The path is chosen without each configuration in turn, and judged by the pairs that have it. */
    public Unseen unseen(Ask ask) {
        checked(ask);
        BitSet rows = fit.rows();
        double[] each = new double[rows.cardinality()];
        int at = 0;
        double sum = 0;
        double squares = 0;
        int n = 0;
        for (int r = rows.nextSetBit(0); r >= 0; r = rows.nextSetBit(r + 1)) {
            int row = r;
            List<ClearPair> without = new ArrayList<>();
            List<ClearPair> with = new ArrayList<>();
            pairs.forEach(p -> (p.better() == row || p.worse() == row ? with : without).add(p));
            BitSet chosen = new BitSet();
            path(ask, without, new HashMap<>()).forEach(s -> chosen.set(s.test()));
            each[at] = with.isEmpty() ? Double.NaN : told(chosen, with).agreement();
            if (!with.isEmpty()) {
                sum += each[at];
                squares += each[at] * each[at];
                n++;
            }
            at++;
        }
        double mean = sum / n;
        double half =
                n < 2 ? 1 : StudentT.upper(n - 1) * Math.sqrt(Math.max(0, squares - n * mean * mean) / (n - 1) / n);
        return new Unseen(
                each, mean, Math.max(0, mean - half), Math.min(1, mean + half), rows.cardinality() < ROUGH_BELOW);
    }

    private void checked(Ask ask) {
        if (ask.minutes().length != columns.size()) {
            throw new IllegalArgumentException(
                    "one time a test is needed: " + ask.minutes().length + " for " + columns.size());
        }
        for (double m : ask.minutes()) {
            if (!(m > 0 && m < Double.POSITIVE_INFINITY)) {
                throw new IllegalArgumentException("a test takes more than 0 minutes, not " + m);
            }
        }
        if (ask.must().intersects(ask.never())) {
            throw new IllegalArgumentException("a test cannot be taken for certain and never");
        }
    }

    /** How alike tests rank the configurations that take part, each by its first number with weight. */
    public AlikeTests alike() {
        return AlikeTests.of(
                fit, columns.stream().mapToInt(of -> of.nextSetBit(0)).toArray());
    }
}
