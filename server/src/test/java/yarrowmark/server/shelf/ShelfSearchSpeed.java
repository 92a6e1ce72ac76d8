package yarrowmark.server.shelf;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.stream.Collectors;
import org.springframework.boot.builder.SpringApplicationBuilder;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.jdbc.core.JdbcTemplate;
import yarrowmark.server.YarrowmarkServer;
import yarrowmark.server.shelf.model.DeviceClass;
import yarrowmark.server.shelf.model.ModelRow;
import yarrowmark.server.shelf.search.ShelfIndex;
import yarrowmark.server.support.FreshSchema;

/**
 * Search as you type over a big made-up shelf: the server's time for each letter typed, and that of a plain query by
 * primary key for the same rows. Run by bin/bench.
 */
public final class ShelfSearchSpeed {
    /** Whether only to see that it works: the smallest size that goes through everything. */
    private static final boolean SMALLEST = Boolean.getBoolean("yarrowmark.smallest");

    private static final int MODELS = SMALLEST ? 50 : 5_000;
    private static final int CONFIGURATIONS = 4;
    private static final int FACTS = 40;
    private static final int ROUNDS = SMALLEST ? 4 : 12;
    private static final List<String> TYPED = List.of(
            "quenby folio",
            "thessaly 5 32",
            "firmware 1.11",
            "16 gib mains",
            "larkspur tablet 12.4",
            "value17 w7-",
            "0x");
    private static final List<String> MAKERS = List.of("Larkspur", "Quenby", "Ostler", "Pellow", "Dunlin", "Hawkmoor");
    private static final List<String> NAMES =
            List.of("Slate", "Folio", "Cob", "Drift", "Wader", "Ridge", "Traverse", "Spar", "Fell", "Shire");
    private static final List<String> CHIPS = List.of("Corvane", "Thessaly", "Brae");

    private ShelfSearchSpeed() {}

    public static void main(String[] arguments) {
        try (ConfigurableApplicationContext context = new SpringApplicationBuilder(YarrowmarkServer.class)
                .initializers(new FreshSchema())
                .run("--server.port=0")) {
            JdbcTemplate jdbc = context.getBean(JdbcTemplate.class);
            fill(jdbc);
            context.getBean(ShelfIndex.class).rebuild();
            ShelfPages shelf = context.getBean(ShelfPages.class);
            System.out.printf(
                    "Search as you type over %d models and %d configurations with %d facts each%n",
                    MODELS, MODELS * CONFIGURATIONS, FACTS);
            List<Double> search = new ArrayList<>();
            List<Double> plain = new ArrayList<>();
            for (int round = 0; round < ROUNDS; round++) {
                for (String typed : TYPED) {
                    for (int letters = 1; letters <= typed.length(); letters++) {
                        measure(
                                shelf,
                                jdbc,
                                typed.substring(0, letters),
                                round < 2 ? new ArrayList<>() : search,
                                round < 2 ? new ArrayList<>() : plain);
                    }
                }
            }
            report("search", search);
            report("plain query for the same rows", plain);
            System.out.printf(
                    Locale.ROOT,
                    "  ratio of the medians %.2f, of the 95th percentiles %.2f%n",
                    quantile(search, 0.5) / quantile(plain, 0.5),
                    quantile(search, 0.95) / quantile(plain, 0.95));
        }
    }

    private static void measure(
            ShelfPages shelf, JdbcTemplate jdbc, String words, List<Double> search, List<Double> plain) {
        long start = System.nanoTime();
        List<ModelRow> rows =
                shelf.search(ShelfIndex.Question.words(words), 0, 50).rows();
        search.add((System.nanoTime() - start) / 1e6);
        if (rows.isEmpty()) {
            search.remove(search.size() - 1);
            return;
        }
        String ids = rows.stream().map(r -> Long.toString(r.id())).collect(Collectors.joining(","));
        start = System.nanoTime();
        // What the list shows of a model, found by its key: its columns, its maker, and how many configurations it has.
        jdbc.queryForList("select m.*, k.name as maker from model m join maker k on k.id = m.maker_id where m.id in ("
                + ids + ") order by k.name, m.name");
        jdbc.queryForList(
                "select u.model_id, count(*) from unit u join configuration c on c.unit_id = u.id where u.model_id in ("
                        + ids + ") and c.merged_into is null group by u.model_id");
        plain.add((System.nanoTime() - start) / 1e6);
    }

    private static void report(String what, List<Double> ms) {
        System.out.printf(
                Locale.ROOT,
                "  %-30s median %6.2f ms   95th percentile %6.2f ms   (%d queries)%n",
                what,
                quantile(ms, 0.5),
                quantile(ms, 0.95),
                ms.size());
    }

    private static double quantile(List<Double> ms, double share) {
        List<Double> sorted = new ArrayList<>(ms);
        Collections.sort(sorted);
        return sorted.get((int) Math.min(sorted.size() - 1, Math.round(share * (sorted.size() - 1))));
    }

    private static void fill(JdbcTemplate jdbc) {
        Random random = new Random(11);
        for (int i = 0; i < MAKERS.size(); i++) {
            jdbc.update("insert into maker (id, name) values (?, ?)", i + 1, MAKERS.get(i));
        }
        List<String> models = new ArrayList<>();
        List<String> units = new ArrayList<>();
        List<String> configurations = new ArrayList<>();
        List<String> facts = new ArrayList<>();
        int number = 0;
        for (int m = 1; m <= MODELS; m++) {
            models.add("(" + m + "," + (1 + random.nextInt(MAKERS.size())) + ",'" + pick(NAMES, random) + " "
                    + (7 + random.nextInt(12)) + " v" + m + "','"
                    + pick(Arrays.stream(DeviceClass.values()).map(Enum::name).toList(), random) + "',"
                    + (100 + random.nextInt(2_000)) + ",'EUR','2025-0" + (1 + random.nextInt(9)) + "-11',0)");
            units.add("(" + m + "," + m + ",'Unit 1')");
            for (int c = 0; c < CONFIGURATIONS; c++) {
                number++;
                String firmware = random.nextInt(4) + "." + (10 + random.nextInt(40));
                configurations.add("(" + number + "," + m + ",'firmware " + firmware + "',sha2('" + number
                        + "',256),utc_timestamp(3))");
                List<String> own = new ArrayList<>(List.of(
                        "processor.name",
                        pick(CHIPS, random) + " " + (1 + random.nextInt(9)),
                        "memory.size",
                        Long.toString(4L << 30 + random.nextInt(4)),
                        "firmware.version",
                        firmware,
                        "os.name",
                        "Fenland",
                        "os.version",
                        "12." + random.nextInt(9),
                        "power.source",
                        "mains",
                        "display.refresh",
                        "60",
                        "room.temperature",
                        "21." + random.nextInt(9)));
                for (int f = own.size() / 2; f < FACTS; f++) {
                    own.addAll(List.of("own.w" + f, "w" + f + "-value" + random.nextInt(60)));
                }
                for (int f = 0; f < FACTS; f++) {
                    facts.add("(" + number + ",'" + own.get(2 * f) + "','" + own.get(2 * f + 1) + "','TYPED')");
                }
            }
        }
        insert(jdbc, "model (id, maker_id, name, device_class, price, currency, released, version)", models);
        insert(jdbc, "unit (id, model_id, label)", units);
        insert(jdbc, "configuration (id, unit_id, name, fingerprint, created_at)", configurations);
        insert(jdbc, "fact (configuration_id, fact_key, fact_value, source)", facts);
    }

    private static void insert(JdbcTemplate jdbc, String into, List<String> rows) {
        for (int i = 0; i < rows.size(); i += 2_000) {
            jdbc.execute("insert into " + into + " values "
                    + String.join(",", rows.subList(i, Math.min(rows.size(), i + 2_000))));
        }
    }

    private static String pick(List<String> from, Random random) {
        return from.get(random.nextInt(from.size()));
    }
}
