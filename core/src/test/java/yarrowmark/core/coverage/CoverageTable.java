package yarrowmark.core.coverage;

import java.util.Locale;
import yarrowmark.core.compare.Materiality;

/** Prints how often intervals, verdicts and places hold, for the tables of docs/method.md. Run by bin/bench coverage. */
public final class CoverageTable {
    private static final boolean SMALLEST = Boolean.getBoolean("yarrowmark.smallest");
    private static final int WORLDS = SMALLEST ? 2 : 120;
    private static final int FLAT_PLOTS = SMALLEST ? 2 : 400;
    private static final int DEVICES = 20;
    private static final int TESTS = 13;
    private static final double RUN = 0.01;
    /** In per cent. */
    private static final double[] EFFECTS = {3, 5, 10, 20};

    private CoverageTable() {}

    public static void main(String[] arguments) {
        System.out.printf(
                Locale.ROOT,
                "%d devices, %d tests, noise of runs %.0f %%, %d simulated worlds a line (a share of pairs is known to about half a per cent, one of overalls to about three where days move all tests alike). Found: share of truly different ones that are told apart.%n%n",
                DEVICES,
                TESTS,
                100 * RUN,
                WORLDS);
        System.out.println(
                "| runs | devices measured twice | day : run | noise | pairs | half-width | equal ones told apart | found 3, 5, 10, 20 % | overall, days independent | half-width | found | overall, days alike | half-width | found | places |");
        System.out.println("|---|---|---|---|---|---|---|---|---|---|---|---|---|---|---|");
        int[] some = {0, 1, 4, DEVICES};
        for (int runs : new int[] {1, 3}) {
            for (int twice : SMALLEST ? new int[] {0, 4} : some) {
                for (double day : SMALLEST ? new double[] {1} : new double[] {0, 0.5, 1, 2}) {
                    line(runs, twice, day, 0, World.Shape.NORMAL);
                }
                if (twice > 0) {
                    line(runs, twice, 1, 0.2, World.Shape.NORMAL);
                }
            }
        }
        for (World.Shape shape : World.Shape.values()) {
            if (shape != World.Shape.NORMAL) {
                for (int runs : new int[] {1, 3}) {
                    line(runs, runs == 1 ? 0 : 4, 1, 0, shape);
                }
            }
        }
        flatTrends();
    }

    private static void flatTrends() {
        System.out.printf(
                Locale.ROOT,
                "%nTrends of %d tests along which nothing changes, each step measured once in three runs on a day of its own, noise of runs %.0f %%, what matters 3 %%, %d simulated plots a line. In how many of 100 plots anything is marked, though nothing changed.%n%n",
                TESTS,
                100 * RUN,
                FLAT_PLOTS);
        System.out.println(
                "| steps | devices of the lab | day : run | days | a step marked | a change of level | either |");
        System.out.println("|---|---|---|---|---|---|---|");
        for (int steps : SMALLEST ? new int[] {10} : new int[] {6, 10, 20}) {
            for (int devices : SMALLEST ? new int[] {DEVICES} : new int[] {steps, Math.max(steps + 2, DEVICES), 60}) {
                for (double day : SMALLEST ? new double[] {1} : new double[] {0, 1, 2}) {
                    flatTrends(steps, devices, day, false);
                    flatTrends(steps, devices, day, true);
                }
            }
        }
    }

    private static void flatTrends(int steps, int devices, double day, boolean alike) {
        World.Setting setting =
                new World.Setting(devices, TESTS, 3, 1, 0, RUN, day, alike, 0, 0, 0, World.Shape.NORMAL);
        FlatTrends found = FlatTrends.of(setting, steps, new Materiality(0.03), FLAT_PLOTS, 21);
        System.out.printf(
                Locale.ROOT,
                "| %d | %d | %.0f | %s | %.1f | %.1f | %.1f |%n",
                steps,
                devices,
                day,
                alike ? "move all tests alike" : "independent",
                100.0 * found.stepped() / found.plots(),
                100.0 * found.changed() / found.plots(),
                100.0 * found.any() / found.plots());
    }

    private static void line(int runs, int twice, double day, double odd, World.Shape shape) {
        World.Setting apart = setting(runs, twice, day, false, odd, shape);
        World.Setting alike = setting(runs, twice, day, true, odd, shape);
        Coverage equal = Coverage.of(apart, WORLDS, 11);
        Coverage equalAlike = Coverage.of(alike, WORLDS, 12);
        StringBuilder pairs = new StringBuilder();
        StringBuilder wholes = new StringBuilder();
        StringBuilder wholesAlike = new StringBuilder();
        for (double effect : EFFECTS) {
            Coverage found = Coverage.of(apart.withEffect(Math.log1p(effect / 100)), WORLDS, 13);
            Coverage foundAlike = Coverage.of(alike.withEffect(Math.log1p(effect / 100)), WORLDS, 14);
            String next = pairs.isEmpty() ? "" : ", ";
            pairs.append(next).append(rounded(found.told()));
            wholes.append(next).append(rounded(found.better()));
            wholesAlike.append(next).append(rounded(foundAlike.better()));
        }
        Coverage places = Coverage.of(apart.withLevels(2 * RUN), WORLDS, 15);
        System.out.printf(
                Locale.ROOT,
                "| %d | %s%s | %s | %s | %s | %.1f | %s | %s | %s | %.1f | %s | %s | %.1f | %s | %s |%n",
                runs,
                twice == 0 ? "none" : twice == DEVICES ? "all" : Integer.toString(twice),
                odd == 0 ? "" : ", one of them 20 % off once",
                day == Math.rint(day) ? Integer.toString((int) day) : Double.toString(day),
                shape.words,
                equal.pairs().words(),
                100 * equal.pairHalf(),
                equal.told().words(),
                pairs,
                equal.overall().words(),
                100 * equal.wholeHalf(),
                wholes,
                equalAlike.overall().words(),
                100 * equalAlike.wholeHalf(),
                wholesAlike,
                places.places().words());
    }

    private static String rounded(Coverage.Share share) {
        return share.all() == 0 ? "–" : Long.toString(Math.round(100 * share.share()));
    }

    private static World.Setting setting(
            int runs, int twice, double day, boolean alike, double odd, World.Shape shape) {
        return new World.Setting(DEVICES, TESTS, runs, 1, twice, RUN, day, alike, 0, 0, odd, shape);
    }
}
