package yarrowmark.core.coverage;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import yarrowmark.core.compare.Materiality;
import yarrowmark.core.compare.OverallComparison;
import yarrowmark.core.compare.PairComparison;
import yarrowmark.core.compare.Verdict;
import yarrowmark.core.standing.MeritGrid;
import yarrowmark.core.standing.Ranking;
import yarrowmark.core.standing.Standing;
import yarrowmark.core.stats.Centre;

/**
 * How often what the core says is true, over many worlds of one setting. The first device is left out of pairs where its
 * last session went wrong: what is asked is what it does to the others.
 *
 * @param pairs     intervals of pairs that hold the true ratio
 * @param told      pairs that are told apart, whichever way, also "probably"
 * @param pairHalf  mean half-width of pairs, on merits
 * @param overall   intervals of overalls that hold the true ratio
 * @param better    overalls that are told apart
 * @param wholeHalf mean half-width of overalls, on merits
 * @param places    devices whose true place is inside the place that is given
 * @param loneFirst worlds in which one device is first alone
 */
record Coverage(
        Share pairs,
        Share told,
        double pairHalf,
        Share overall,
        Share better,
        double wholeHalf,
        Share places,
        Share loneFirst) {
    private static final Materiality MATERIALITY = new Materiality(0.01);

    /** So many of so many. */
    record Share(long of, long all) {
        double share() {
            return (double) of / all;
        }

        /** In per cent; nothing where there were none. */
        String words() {
            return all == 0 ? "–" : String.format(Locale.ROOT, "%.1f", 100 * share());
        }
    }

    private static final class Count {
        private long of;
        private long all;

        void add(boolean yes) {
            all++;
            of += yes ? 1 : 0;
        }

        Share share() {
            return new Share(of, all);
        }
    }

    static Coverage of(World.Setting setting, int worlds, long seed) {
        Count pairs = new Count();
        Count told = new Count();
        Count overall = new Count();
        Count better = new Count();
        Count places = new Count();
        Count loneFirst = new Count();
        double pairHalf = 0;
        double wholeHalf = 0;
        for (int w = 0; w < worlds; w++) {
            World world = new World(setting, seed + w);
            for (int i = setting.odd() == 0 ? 0 : 2; i + 1 < setting.devices(); i += 2) {
                List<PairComparison> own = new ArrayList<>();
                double whole = 0;
                for (int j = 0; j < setting.tests(); j++) {
                    PairComparison c = PairComparison.of(
                            world.samples[j][i + 1], world.samples[j][i], world.noise.get(j), MATERIALITY);
                    own.add(c);
                    double truth = world.truth[j][i + 1] - world.truth[j][i];
                    whole += truth / setting.tests();
                    pairs.add(holds(c.interval(), truth));
                    told.add(apart(c.verdict()));
                    pairHalf += c.interval().half();
                }
                double[] weights = new double[setting.tests()];
                Arrays.fill(weights, 1);
                OverallComparison all = OverallComparison.of(own, weights, world.day, MATERIALITY);
                overall.add(holds(all.interval(), whole));
                better.add(apart(all.verdict()));
                wholeHalf += all.interval().half();
            }
            places(world, setting, places);
            loneFirst.add(standing(world, setting)
                            .entries()
                            .get(0)
                            .place()
                            .orElseThrow()
                            .worst()
                    == 1);
        }
        return new Coverage(
                pairs.share(),
                told.share(),
                pairHalf / pairs.all,
                overall.share(),
                better.share(),
                wholeHalf / overall.all,
                places.share(),
                loneFirst.share());
    }

    private static boolean holds(PairComparison.Interval interval, double truth) {
        return interval.low() <= Math.exp(truth) && Math.exp(truth) <= interval.high();
    }

    private static boolean apart(Verdict verdict) {
        return verdict != Verdict.CANNOT_TELL && verdict != Verdict.LEVEL && verdict != Verdict.PROBABLY_LEVEL;
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

    private static void places(World world, World.Setting setting, Count count) {
        double[] level = new double[setting.devices()];
        for (int i = 0; i < level.length; i++) {
            for (int j = 0; j < setting.tests(); j++) {
                level[i] += world.truth[j][i] / setting.tests();
            }
        }
        for (Standing.Entry e : standing(world, setting).entries()) {
            double own = level[e.row()];
            long above = Arrays.stream(level).filter(l -> l > own + 1e-12).count();
            long equal =
                    Arrays.stream(level).filter(l -> Math.abs(l - own) <= 1e-12).count();
            int best = e.place().orElseThrow().best();
            int worst = e.place().orElseThrow().worst();
            // Equal ones share the places that they take together.
            count.add(best <= above + equal && above + 1 <= worst);
        }
    }
}
