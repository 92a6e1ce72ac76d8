package yarrowmark.core.compare;

/** How many runs a side would settle a comparison that cannot tell yet. */
public sealed interface RunsNeeded {
    /** The comparison tells already. */
    record None() implements RunsNeeded {}

    /**
     * @param runsEachSide smallest number of runs on each side that is enough, 2 to 40
     * @param more         how many more that is for the side that has fewer, 0 or more
     */
    record Runs(int runsEachSide, int more) implements RunsNeeded {}

    /** Not even {@value PairComparison#MOST_RUNS} runs a side would be enough. */
    record MoreThanMost() implements RunsNeeded {}

    /** A spread is not known at all, so nothing can be foretold. */
    record Unknown() implements RunsNeeded {}
}
