package yarrowmark.core.coverage;

import java.util.Locale;

/** Prints how often intervals, verdicts and places hold, for the table of docs/method.md. Run by bin/bench coverage. */
public final class CoverageTable {
    private static final boolean SMALLEST = Boolean.getBoolean("yarrowmark.smallest");
    private static final int WORLDS = SMALLEST ? 2 : 60;
    private static final int DEVICES = 20;
    private static final int TESTS = 20;
    private static final double RUN = 0.01;

    private CoverageTable() {}

    public static void main(String[] arguments) {
        System.out.println("Twenty devices, twenty tests; each number in per cent.");
        System.out.println(
                "| runs | sessions | day / run | noise | pairs | false clear | overall, tests by themselves | overall, a day moves all | places | lone first of equals |");
        System.out.println("|---|---|---|---|---|---|---|---|---|---|");
        int[] allRuns = SMALLEST ? new int[] {3} : new int[] {1, 2, 3, 5, 10};
        for (int[] sessions : new int[][] {{1, 0}, {1, 1}, {1, 4}, {2, 0}, {3, 0}}) {
            for (double day : new double[] {0, 0.5, 1, 2}) {
                for (int runs : allRuns) {
                    line(runs, sessions, day, World.Shape.NORMAL);
                }
            }
        }
        for (World.Shape shape : World.Shape.values()) {
            if (shape != World.Shape.NORMAL) {
                for (int[] sessions : new int[][] {{1, 0}, {1, 4}, {2, 0}}) {
                    for (int runs : SMALLEST ? allRuns : new int[] {1, 3, 5, 10}) {
                        line(runs, sessions, 1, shape);
                    }
                }
            }
        }
    }

    private static void line(int runs, int[] sessions, double day, World.Shape shape) {
        Coverage apart = Coverage.of(setting(runs, sessions, day, false, shape), WORLDS, 11);
        Coverage alike = Coverage.of(setting(runs, sessions, day, true, shape), WORLDS, 12);
        System.out.printf(
                Locale.ROOT,
                "| %d | %s | %s | %s | %.1f | %.1f | %.1f | %.1f | %.1f | %.1f |%n",
                runs,
                sessions[1] == 0 ? Integer.toString(sessions[0]) : "1, and " + sessions[1] + " twice",
                day == Math.rint(day) ? Integer.toString((int) day) : Double.toString(day),
                shape.words,
                100 * apart.pairs(),
                100 * apart.falseClear(),
                100 * apart.overall(),
                100 * alike.overall(),
                100 * Math.min(apart.places(), alike.places()),
                100 * Math.max(apart.loneFirst(), alike.loneFirst()));
    }

    private static World.Setting setting(int runs, int[] sessions, double day, boolean alike, World.Shape shape) {
        return new World.Setting(DEVICES, TESTS, runs, sessions[0], sessions[1], RUN, day, alike, 0, shape);
    }
}
