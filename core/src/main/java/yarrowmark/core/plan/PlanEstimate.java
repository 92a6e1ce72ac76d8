package yarrowmark.core.plan;

import java.util.List;

/**
 * How long a plan of any tests takes on one device: Σ runs × (run + pause), without the pause before the first run.
 *
 * @param wholeMs every test
 * @param mustMs  those it must have
 * @param guessed how many tests nothing is known of, so that their runs are guessed
 */
public record PlanEstimate(long wholeMs, long mustMs, int guessed) {
    /**
     * @param runMs   one run, in ms, 0 or more
     * @param pauseMs before each run, in ms
     * @param guessed whether the length of a run is a guess
     */
    public record Item(int runs, double runMs, double pauseMs, boolean must, boolean guessed) {
        public Item {
            if (runs < 0
                    || !(runMs >= 0 && runMs < Double.POSITIVE_INFINITY)
                    || !(pauseMs >= 0 && pauseMs < Double.POSITIVE_INFINITY)) {
                throw new IllegalArgumentException("a test of a plan has 0 or more runs, and times of 0 or more");
            }
        }
    }

    public static PlanEstimate of(List<Item> items) {
        return new PlanEstimate(
                sum(items), sum(items.stream().filter(Item::must).toList()), (int)
                        items.stream().filter(Item::guessed).count());
    }

    private static long sum(List<Item> items) {
        double all = items.stream()
                .mapToDouble(i -> i.runs() * (i.runMs() + i.pauseMs()))
                .sum();
        double first = items.stream()
                .filter(i -> i.runs() > 0)
                .findFirst()
                .map(Item::pauseMs)
                .orElse(0.0);
        return Math.round(all - first);
    }
}
