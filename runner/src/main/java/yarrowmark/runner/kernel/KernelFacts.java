package yarrowmark.runner.kernel;

import java.util.Arrays;
import java.util.Optional;
import java.util.function.Supplier;

/**
 * The ten kernels with what is known about them: the same seeds and answers as in a browser, so that both do the same work.
 */
public enum KernelFacts {
    WEIR_HASH("weir-hash", WeirHash::new, 20260401, 494_973_052, 1),
    MAP_TILE_CRUSH("map-tile-crush", MapTileCrush::new, 1847, 50_589, 8 * 160 * 160 / 1e6, 651_311_452),
    SPECIMEN_SORT("specimen-sort", SpecimenSort::new, 733, 1_859_991_625, 16_384 / 1e6),
    FOOTPATH_SEARCH("footpath-search", FootpathSearch::new, 4099, 1_241_940_378, 1),
    FIELDNOTE_MATCH("fieldnote-match", FieldnoteMatch::new, 58, 933_080_841, 8 * 32_768 / 1e6),
    PLOT_MATRIX("plot-matrix", PlotMatrix::new, 612, 3_148_807_746L, 2.0 * 128 * 128 * 128 / 1e9),
    TIDE_SPECTRUM("tide-spectrum", TideSpectrum::new, 365, 1_154_944_596, 2),
    ROOST_ORBITS("roost-orbits", RoostOrbits::new, 96, 3_989_160_669L, 96 * 96 * 8 / 1e6),
    LANTERN_PATHS("lantern-paths", LanternPaths::new, 17, 1_576_711_597, 48 * 32 * 4 / 1e6),
    PLATE_FILTER("plate-filter", PlateFilter::new, 2048, 3_748_816_868L, 256 * 256 / 1e6);

    private final String key;
    private final Supplier<Kernel> kernel;
    private final int seed;
    private final int answer;
    private final double perRound;
    /** Of what the last round left; absent where the answer is all there is. */
    private final long digest;

    KernelFacts(String key, Supplier<Kernel> kernel, int seed, long answer, double perRound) {
        this(key, kernel, seed, answer, perRound, -1);
    }

    KernelFacts(String key, Supplier<Kernel> kernel, int seed, long answer, double perRound, long digest) {
        this.key = key;
        this.kernel = kernel;
        this.seed = seed;
        this.answer = (int) answer;
        this.perRound = perRound;
        this.digest = digest;
    }

    public static Optional<KernelFacts> of(String key) {
        return Arrays.stream(values()).filter(k -> k.key.equals(key)).findFirst();
    }

    public String key() {
        return key;
    }

    int seed() {
        return seed;
    }

    /** As an unsigned number, as a browser has it. */
    long answer() {
        return answer & 0xffffffffL;
    }

    long digest() {
        return digest;
    }

    /** How much of the test's unit one round is, for rates per second. */
    public double perRound() {
        return perRound;
    }

    /** A kernel with everything laid out. */
    public Kernel prepared() {
        Kernel made = kernel.get();
        made.prepare(seed);
        return made;
    }

    /** @throws WrongAnswer where a round did not answer what it has to */
    public void rounds(Kernel of, long rounds) {
        for (long i = 0; i < rounds; i++) {
            if (of.operate() != answer) {
                throw new WrongAnswer("The answer of a round is not the known one.");
            }
        }
    }

    /** Looks at everything the last round left, where a kernel has more than its answer. */
    public void checkLast(Kernel of) {
        if (digest >= 0 && of.digest(answer) != (int) digest) {
            throw new WrongAnswer("What the last round left is not what is known.");
        }
    }
}
