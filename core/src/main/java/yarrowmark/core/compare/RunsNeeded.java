package yarrowmark.core.compare;

/** How many runs, or sessions, would settle a comparison that is too close to call yet. */
public sealed interface RunsNeeded {
    /** The comparison tells already. */
    record None() implements RunsNeeded {}

    /** A side has one run and nothing measured is lent to it: first of all, each is run three times. */
    record ThreeEach() implements RunsNeeded {}

    /**
     * @param runsEachSide smallest number of runs on each side that is enough, 2 to 40
     * @param more         how many more that is for the side that has fewer, 0 or more
     */
    record Runs(int runsEachSide, int more) implements RunsNeeded {}

    /**
     * Days differ more than runs do, so more runs of the same days would not tell.
     *
     * @param sessionsEachSide smallest number of sessions on each side that is enough
     * @param more             how many more that is for the side that has fewer, 1 or more
     */
    record Sessions(int sessionsEachSide, int more) implements RunsNeeded {
        /** What each session is taken to have. */
        public static final int RUNS_EACH = 3;
    }

    /** Not even {@value PairComparison#MOST_RUNS} runs a side would be enough, nor a dozen sessions. */
    record MoreThanMost() implements RunsNeeded {}
}
