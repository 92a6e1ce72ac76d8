package yarrowmark.server.catalog;

import java.util.List;
import org.springframework.stereotype.Component;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.measure.Scale;
import yarrowmark.server.platform.BeforeOpening;

/**
 * The tests that Yarrowmark brings along. A change of the work inside one is a new version here, and so a new
 * comparability group. The keys are those of web/src/workloads; docs/method.md says what each does.
 */
@Component
public class BuiltInSuite implements BeforeOpening {
    public static final String NAME = "Yarrow round";
    public static final String VERSION = "1";
    /** Every built-in test has one main metric of this key. */
    public static final String RATE = "rate";

    private static final List<Catalog.NewTest> TESTS = List.of(
        test("weir-hash-one", "Weir hash, one thread", TestGroup.PROCESSOR, "Integer hashing in WebAssembly on one thread.", "ops/s"),
        test("weir-hash-all", "Weir hash, all threads", TestGroup.PROCESSOR, "The same hashing in as many workers as there are logical processors.", "ops/s"),
        test("map-tile-crush", "Map tile crush", TestGroup.PROCESSOR, "Dictionary compression and decompression of map tiles in WebAssembly.", "MB/s"),
        test("species-list", "Species list", TestGroup.BROWSER, "Building, sorting, filtering and editing a long list on a page, layout included.", "rounds/min"),
        test("transect-sketch", "Transect sketch", TestGroup.BROWSER, "Drawing paths, text and images on an off-screen 2D canvas.", "drawings/s"));

    private final Catalog catalog;

    BuiltInSuite(Catalog catalog) {
        this.catalog = catalog;
    }

    private static Catalog.NewTest test(String key, String name, TestGroup group, String summary, String unit) {
        return new Catalog.NewTest(key, name, summary, group,
            List.of(new Catalog.NewMetric(RATE, name, unit, Direction.MORE_IS_BETTER, Scale.RATIO, true)));
    }

    /** The ids of the built-in tests, in the order they run; makes what is missing. */
    public List<Long> ensure() {
        return catalog.ensure(NAME, VERSION, true, TESTS);
    }

    @Override
    public int getPhase() {
        return 10;
    }

    @Override
    public void start() {
        ensure();
        catalog.ensurePurpose(Catalog.ALL_ROUND, Catalog.alike());
    }
}
