package yarrowmark.runner.storage;

import java.util.List;

/**
 * What the storage tests of a plan would write at the most, said before anything is written. How much a timed test writes
 * depends on the drive: it is reckoned with one that is faster than most, so that the answer is an upper bound for the others.
 */
public record PlannedWrites(long bytes, long room) {
    /** @param key of a test, any test. @param timedMs of a run */
    public record Planned(String key, int runs, double timedMs) {}

    /** In bytes a second: of a fast drive in sequence, and of one in small blocks. */
    private static final double IN_SEQUENCE = 3e9;

    private static final double SCATTERED = 1.5e9;
    /** What is written before the timed part begins, as a share of it: finding the size of a sample, and warming up. */
    private static final double BEFORE = 0.75;

    private static final int GIB = 30;
    private static final double OF_MIXED = 0.3;
    private static final double OF_SMALL = 0.2;

    public static PlannedWrites of(List<Planned> plan, long fileBytes, long longBytes) {
        double bytes = 0;
        boolean filled = false;
        boolean any = false;
        for (Planned p : plan) {
            if (!p.key().contains("-storage-")) {
                continue;
            }
            String name = p.key().replace("native-storage-", "").replace("native-endurance-storage-", "endure-");
            any = true;
            filled |= StorageTests.isFilled(name);
            bytes += p.runs() * perRun(name, p.timedMs() / 1e3, longBytes);
        }
        return new PlannedWrites(
                (long) bytes + (filled ? fileBytes : 0), any ? (filled ? 2 * fileBytes : fileBytes) : 0);
    }

    private static double perRun(String name, double timedS, long longBytes) {
        double timed = timedS * (1 + BEFORE);
        return switch (name) {
            case "long-write" -> longBytes;
            case "write", "write-cached", "sweep-write" -> timed * IN_SEQUENCE;
            case "mixed" -> timed * SCATTERED * OF_MIXED;
            case "small-files", "flushes" -> timed * SCATTERED * OF_SMALL;
            default -> name.startsWith("random-write-") ? timed * SCATTERED : 0;
        };
    }

    public boolean any() {
        return room > 0;
    }

    /** Whole GiB, rounded up. */
    public long gib() {
        return (bytes + (1L << GIB) - 1) >> GIB;
    }

    /** @param limitGib the most that may be written */
    public String words(String place, long limitGib) {
        return "The storage tests write in " + place + ": at the most about " + gib()
                + " GiB on a fast drive, less on a slower one"
                + (limitGib < gib() ? ", and no more than the limit of " + limitGib + " GiB" : "") + ". They need "
                + Math.max(1, room >> GIB) + " GiB of room, which is free again afterwards.";
    }
}
