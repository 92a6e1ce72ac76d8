package yarrowmark.server.demo;

import static yarrowmark.server.platform.Require.require;

import jakarta.persistence.EntityManager;
import java.math.BigDecimal;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.server.access.DemoSignIn;
import yarrowmark.server.access.People;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.catalog.Purposes;
import yarrowmark.server.catalog.TestGroup;
import yarrowmark.server.catalog.TestRow;
import yarrowmark.server.platform.StartupTask;
import yarrowmark.server.platform.records.Settings;
import yarrowmark.server.shelf.Claims;
import yarrowmark.server.shelf.Shelf;
import yarrowmark.server.shelf.configuration.Configurations;
import yarrowmark.server.shelf.configuration.GivenFact;

/** Fills an empty demo shelf once, all or nothing: the same seed, the same shelf. */
@Component
@ConditionalOnProperty("yarrowmark.demo")
class DemoLoader implements StartupTask {
    private static final Logger LOG = LoggerFactory.getLogger(DemoLoader.class);
    private static final String LOADED = "demo.loaded";
    static final long SEED = 20_260_401;
    private static final LocalDate FIRST_DAY = LocalDate.of(2026, 4, 1);

    private final People people;
    private final Shelf shelf;
    private final Claims claims;
    private final Clock clock;
    private final Configurations configurations;
    private final Catalog catalog;
    private final Purposes purposes;
    private final DemoSittings sittings;
    private final DemoPlans plans;
    private final DemoWriteUps writeUps;
    private final DemoTrends trends;
    private final Settings settings;
    private final EntityManager entities;

    DemoLoader(
            People people,
            Shelf shelf,
            Claims claims,
            Clock clock,
            Configurations configurations,
            Catalog catalog,
            Purposes purposes,
            DemoSittings sittings,
            DemoPlans plans,
            DemoWriteUps writeUps,
            DemoTrends trends,
            Settings settings,
            EntityManager entities) {
        this.sittings = sittings;
        this.plans = plans;
        this.writeUps = writeUps;
        this.trends = trends;
        this.people = people;
        this.shelf = shelf;
        this.claims = claims;
        this.clock = clock;
        this.configurations = configurations;
        this.catalog = catalog;
        this.purposes = purposes;
        this.settings = settings;
        this.entities = entities;
    }

    /** Every so many configurations were measured on a second day. */
    private static final int SECOND_DAYS = 6;

    @Override
    public int getPhase() {
        return 30;
    }

    @Override
    @Transactional
    public void start() {
        if (settings.get(LOADED).isPresent()) {
            return;
        }
        LOG.info("Loading the demo shelf");
        people.makeOwner(DemoSignIn.NAME, DemoSignIn.PASSWORD, "Saltmarsh Kit Review");
        purposes.ensure(
                "field survey work",
                Map.of(
                        TestGroup.PROCESSOR,
                        2.0,
                        TestGroup.GRAPHICS,
                        1.0,
                        TestGroup.STORAGE,
                        1.0,
                        TestGroup.BROWSER,
                        2.0,
                        TestGroup.BODY,
                        2.0));
        Random random = new Random(SEED);
        int number = 0;
        List<Runnable> again = new ArrayList<>();
        for (DemoDevices.Device device : DemoDevices.all()) {
            long model = shelf.make(
                    new Shelf.ModelFacts(
                            device.maker(),
                            device.model(),
                            device.deviceClass(),
                            BigDecimal.valueOf(device.price()),
                            "EUR",
                            LocalDate.parse(device.released())),
                    DemoSignIn.NAME);
            long unit = shelf.firstUnit(model, DemoSignIn.NAME);
            describe(device, model, unit);
            for (DemoDevices.Setup setup : device.setups()) {
                List<GivenFact> facts = DemoTrends.given(setup.facts());
                long configuration = configurations.configure(unit, facts, setup.name(), DemoSignIn.NAME);
                if (setup != device.setups().get(0)) {
                    configurations.test(configuration, underTest(device.setups().get(0), setup), DemoSignIn.NAME);
                }
                int at = number++;
                double[] own = sittings.sitting(configuration, device, setup, at, day(at), random, null);
                if (at % SECOND_DAYS == 0) {
                    again.add(() -> sittings.sitting(
                            configuration,
                            device,
                            setup,
                            at,
                            day(at).plus(Duration.ofDays(3)),
                            new Random(SEED + at),
                            own));
                }
            }
        }
        // After everything else, so that all the rest is what it is without them.
        again.forEach(Runnable::run);
        trends.add(device("Cob mini"), played("Cob mini"), device("Fell"), played("Fell"));
        entities.flush();
        entities.clear();
        lines();
        plans.add();
        writeUps.add();
        settings.put(LOADED, "1");
        LOG.info("The demo shelf has {} configurations", number);
    }

    static DemoDevices.Device device(String model) {
        return DemoDevices.all().stream()
                .filter(d -> d.model().equals(model))
                .findFirst()
                .orElseThrow();
    }

    private List<DemoTrends.Played> played(String model) {
        Map<Long, String> names = catalog.tests().stream().collect(Collectors.toMap(TestRow::id, TestRow::name));
        return sittings.tests(device(model)).stream()
                .map(t -> new DemoTrends.Played(
                        t.testId(), t.metric(), require(names, t.testId()), t.behaviour(), t.less()))
                .toList();
    }

    /** A new firmware is what a lab sets out to test; whatever came with it is what also changed. */
    private static Set<String> underTest(DemoDevices.Setup before, DemoDevices.Setup after) {
        Set<String> changed = after.facts().keySet().stream()
                .filter(key ->
                        !require(after.facts(), key).equals(before.facts().get(key)))
                .collect(Collectors.toSet());
        return changed.contains("firmware.version") ? Set.of("firmware.version") : changed;
    }

    /** Which models follow which, and how far their reviews are. */
    private void lines() {
        for (DemoDevices.Device device : DemoDevices.all()) {
            long model = shelf.findModel(device.maker(), device.model()).orElseThrow();
            Map.of("predecessor", DemoNotes.FOLLOWS, "review", DemoNotes.REVIEWS, "weight", DemoNotes.WEIGHTS)
                    .forEach((field, of) -> {
                        if (of.containsKey(device.model())) {
                            shelf.changeModel(model, field, null, of.get(device.model()), DemoSignIn.NAME);
                        }
                    });
        }
    }

    /** What the lab noted about a model and its unit, where it noted anything. */
    private void describe(DemoDevices.Device device, long model, long unit) {
        DemoNotes.Note note = DemoNotes.of(device.model());
        note.fields().forEach((field, text) -> shelf.changeModel(model, field, null, text, DemoSignIn.NAME));
        note.unit().forEach((field, text) -> shelf.changeUnit(unit, field, null, text, DemoSignIn.NAME));
        note.daysLeft()
                .ifPresent(days -> shelf.changeUnit(
                        unit,
                        "dueBack",
                        null,
                        LocalDate.now(clock).plusDays(days).toString(),
                        DemoSignIn.NAME));
        // The tests a claim may be about exist from the first device that runs them.
        sittings.tests(device);
        for (DemoNotes.Promise promise : note.claims()) {
            Long metric = promise.test() == null
                    ? null
                    : catalog.metrics().stream()
                            .filter(m -> m.test().equals(promise.test()))
                            .findFirst()
                            .map(MetricRow::id)
                            .orElseThrow();
            claims.add(model, promise.factKey(), metric, promise.text(), promise.source(), DemoSignIn.NAME);
        }
    }

    static Instant day(int number) {
        return FIRST_DAY.plusDays(number * 7L).atTime(9, 10).toInstant(ZoneOffset.UTC);
    }
}
