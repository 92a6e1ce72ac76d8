package yarrowmark.runner.storage;

import java.util.List;

/**
 * What the storage tests of a plan would write, said before anything is written. How much a timed test writes depends on the
 * drive, which nobody has measured yet: it is reckoned for a usual one, and for one faster than any, which no other exceeds.
 *
 * @param usual bytes on a usual drive
 * @param most  bytes on the fastest
 * @param room  bytes on the drive meanwhile
 */
public record PlannedWrites(long usual, long most, long room) {
    /** @param key of a test, any test. @param timedMs of a run */
    public record Planned(String key, int runs, double timedMs) {}

    /** In bytes a second. */
    private record Drive(double inSequence, double scattered) {}

    private static final Drive USUAL = new Drive(2e9, 0.5e9);
    /** Through the system's cache a drive may seem as fast as memory is. */
    private static final Drive FASTEST = new Drive(16e9, 8e9);
    /** A shared file that somebody took away is filled once more, and each test tries a block first. */
    private static final int FILLS = 2;

    /** What is written before the timed part begins, as a share of it: finding the size of a sample, and warming up. */
    private static final double BEFORE = 0.75;

    private static final int GIB = 30;
    private static final double OF_MIXED = 0.3;
    private static final double OF_SMALL = 0.2;

    public static PlannedWrites of(List<Planned> plan, long fileBytes, long longBytes) {
        double usual = 0;
        double most = 0;
        boolean filled = false;
        boolean any = false;
        for (Planned p : plan) {
            if (!p.key().contains("-storage-")) {
                continue;
            }
            String name = p.key().replace("native-storage-", "").replace("native-endurance-storage-", "endure-");
            any = true;
            filled |= StorageTests.isFilled(name);
            usual += p.runs() * perRun(USUAL, name, p.timedMs() / 1e3, longBytes);
            most += p.runs() * perRun(FASTEST, name, p.timedMs() / 1e3, longBytes);
        }
        return new PlannedWrites(
                (long) usual + (filled ? fileBytes : 0),
                (long) most + (any ? FILLS * fileBytes : 0),
                any ? (filled ? 2 * fileBytes : fileBytes) : 0);
    }

    private static double perRun(Drive drive, String name, double timedS, long longBytes) {
        double timed = timedS * (1 + BEFORE);
        return switch (name) {
            case "long-write" -> longBytes;
            case "write", "write-cached", "sweep-write" -> timed * drive.inSequence();
            case "mixed" -> timed * drive.scattered() * OF_MIXED;
            case "small-files", "flushes" -> timed * drive.scattered() * OF_SMALL;
            default -> name.startsWith("random-write-") ? timed * drive.scattered() : 0;
        };
    }

    public boolean any() {
        return room > 0;
    }

    /** The most, in whole GiB, rounded up. */
    public long gib() {
        return gib(most);
    }

    private static long gib(long bytes) {
        return (bytes + (1L << GIB) - 1) >> GIB;
    }

    /** @param limitGib the most that may be written */
    public String words(String place, long limitGib) {
        return "The storage tests write in " + place + ": about " + gib(usual)
                + " GiB on a usual drive, more on a faster one, and no more than " + limitGib + " GiB. They need "
                + Math.max(1, gib(room)) + " GiB of room, which is free again afterwards.";
    }
}
