package yarrowmark.core.coverage;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import yarrowmark.core.compare.Materiality;
import yarrowmark.core.compare.OverallComparison;
import yarrowmark.core.compare.PairComparison;
import yarrowmark.core.compare.Verdict;
import yarrowmark.core.standing.MeritGrid;
import yarrowmark.core.standing.Ranking;
import yarrowmark.core.standing.Standing;
import yarrowmark.core.stats.Centre;

/**
 * How often what the core says is true, over many worlds of one setting.
 *
 * @param pairs      share of the 95 % intervals of pairs that hold the true ratio
 * @param falseClear share of pairs of equal devices that are called a clear gain or loss
 * @param overall    share of the intervals of overalls that hold the true ratio
 * @param places     share of devices whose true place is inside the place that is given
 * @param loneFirst  share of worlds in which one of the equal devices is first alone
 */
record Coverage(double pairs, double falseClear, double overall, double places, double loneFirst) {
    /** 3 % of every interval's half-width would be nothing here: noise is 1 %, and what matters as much. */
    private static final Materiality MATERIALITY = new Materiality(0.01);

    static Coverage of(World.Setting setting, int worlds, long seed) {
        long[] pair = new long[4];
        long[] overall = new long[2];
        long[] place = new long[3];
        for (int w = 0; w < worlds; w++) {
            World equal = new World(apart(setting, 0), seed + 2L * w);
            pairs(equal, setting, pair);
            overalls(equal, setting, overall);
            place[2] += loneFirst(equal, setting) ? 1 : 0;
            places(new World(apart(setting, 2 * setting.run()), seed + 2L * w + 1), setting, place);
        }
        return new Coverage(
                (double) pair[1] / pair[0],
                (double) pair[3] / pair[2],
                (double) overall[1] / overall[0],
                (double) place[1] / place[0],
                (double) place[2] / worlds);
    }

    private static World.Setting apart(World.Setting s, double apart) {
        return new World.Setting(
                s.devices(),
                s.tests(),
                s.runs(),
                s.sessions(),
                s.twice(),
                s.run(),
                s.day(),
                s.alike(),
                apart,
                s.shape());
    }

    /** Neighbours, so that every device is in one pair. Where only a day is claimed, devices differ by their days. */
    private static void pairs(World world, World.Setting setting, long[] counts) {
        for (int j = 0; j < setting.tests(); j++) {
            for (int i = 0; i + 1 < setting.devices(); i += 2) {
                PairComparison c = PairComparison.of(
                        world.samples[j][i], world.samples[j][i + 1], world.noise.get(j), MATERIALITY);
                double truth = Math.exp(world.truth[j][i] - world.truth[j][i + 1]);
                counts[0]++;
                counts[1] +=
                        c.interval().low() <= truth && truth <= c.interval().high() ? 1 : 0;
                if (truth == 1) {
                    counts[2]++;
                    counts[3] += c.verdict() == Verdict.CLEAR_GAIN || c.verdict() == Verdict.CLEAR_LOSS ? 1 : 0;
                }
            }
        }
        counts[2] = Math.max(1, counts[2]);
    }

    private static void overalls(World world, World.Setting setting, long[] counts) {
        double[] weights = new double[setting.tests()];
        Arrays.fill(weights, 1);
        for (int i = 0; i + 1 < setting.devices(); i += 2) {
            List<PairComparison> pairs = new ArrayList<>();
            double truth = 0;
            for (int j = 0; j < setting.tests(); j++) {
                pairs.add(PairComparison.of(
                        world.samples[j][i], world.samples[j][i + 1], world.noise.get(j), MATERIALITY));
                truth += (world.truth[j][i] - world.truth[j][i + 1]) / setting.tests();
            }
            OverallComparison all = OverallComparison.of(pairs, weights, world.day, MATERIALITY);
            counts[0]++;
            counts[1] += all.interval().low() <= Math.exp(truth)
                            && Math.exp(truth) <= all.interval().high()
                    ? 1
                    : 0;
        }
    }

    private static Standing standing(World world, World.Setting setting) {
        MeritGrid.Builder builder =
                MeritGrid.builder(setting.devices(), setting.tests()).day(world.day);
        for (int i = 0; i < setting.devices(); i++) {
            for (int j = 0; j < setting.tests(); j++) {
                builder.cell(i, j, Centre.of(world.samples[j][i], world.noise.get(j)));
            }
        }
        double[] weights = new double[setting.tests()];
        Arrays.fill(weights, 1);
        return Ranking.of(builder.build(), weights, 0);
    }

    private static void places(World world, World.Setting setting, long[] counts) {
        double[] level = new double[setting.devices()];
        for (int i = 0; i < level.length; i++) {
            for (int j = 0; j < setting.tests(); j++) {
                level[i] += world.truth[j][i] / setting.tests();
            }
        }
        for (Standing.Entry e : standing(world, setting).entries()) {
            double own = level[e.row()];
            long above = Arrays.stream(level).filter(l -> l > own).count();
            counts[0]++;
            counts[1] += e.place().orElseThrow().best() <= above + 1
                            && above + 1 <= e.place().orElseThrow().worst()
                    ? 1
                    : 0;
        }
    }

    private static boolean loneFirst(World world, World.Setting setting) {
        return standing(world, setting).entries().get(0).place().orElseThrow().worst() == 1;
    }
}
