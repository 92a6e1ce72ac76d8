package yarrowmark.e2e;

import java.io.IOException;
import java.io.InputStream;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.Statement;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import java.util.stream.Collectors;
import org.openqa.selenium.json.Json;

/**
 * Kills the runner at random moments of a round, as kill -9 does, and counts in the end: every planned run is in the ledger
 * once. Run by bin/bench.
 */
public final class RunnerKills {
    private static final boolean SMALLEST = Boolean.getBoolean("yarrowmark.smallest");
    private static final int KILLS = SMALLEST ? 1 : 50;
    private static final int RUNS = SMALLEST ? 2 : 30;
    private static final List<String> TESTS = SMALLEST
            ? List.of("native-weir-hash-one")
            : List.of(
                    "native-weir-hash-one",
                    "native-tide-spectrum-one",
                    "native-plot-matrix-all",
                    "native-footpath-search-one",
                    "native-specimen-sort-all",
                    "native-map-tile-crush-one",
                    "native-roost-orbits-all",
                    "native-plate-filter-one");

    private static final int LONGEST_MS = 3_500;
    private static final Json JSON = new Json();

    private RunnerKills() {}

    public static void main(String[] arguments) throws Exception {
        Path folder = Files.createTempDirectory(Path.of("target"), "runner-kills");
        long[] counted;
        int alive = 0;
        try (Program program = Program.start("start", "runner-kills")) {
            Path jar = folder.resolve("yarrow-runner.jar");
            try (InputStream in = URI.create(program.address() + "runner/yarrow-runner.jar")
                    .toURL()
                    .openStream()) {
                Files.copy(in, jar, StandardCopyOption.REPLACE_EXISTING);
            }
            String code = code(program.address());
            Random when = new Random(20261128);
            for (int i = 0; i < KILLS; i++) {
                Process runner = begin(jar, program.address(), code, folder);
                if (!runner.waitFor(when.nextInt(LONGEST_MS), TimeUnit.MILLISECONDS)) {
                    alive++;
                }
                runner.destroyForcibly().waitFor();
            }
            int ended = begin(jar, program.address(), code, folder).waitFor();
            if (ended != 0) {
                throw new IllegalStateException(
                        "the last runner ended with " + ended + ": " + Files.readString(folder.resolve("said.txt")));
            }
            counted = counted(program.database());
        }
        int planned = RUNS * TESTS.size();
        boolean held = counted[0] == planned && counted[1] == planned;
        System.out.printf(
                "Kills of the runner: %d, %d of them while it was at work: %d runs planned, %d good ones in the ledger, %d of them different, %d cut off; %s%n",
                KILLS, alive, planned, counted[0], counted[1], counted[2], held ? "held" : "missed");
        if (!held) {
            throw new IllegalStateException("a run was lost, or is there twice");
        }
    }

    private static String code(String address) throws IOException, InterruptedException {
        Device.Http owner = Device.owner(address);
        List<Map<String, Object>> items = owner.list("api/tests").stream()
                .filter(t -> TESTS.contains(t.get("key")))
                .map(t -> Map.of("testId", t.get("id"), "nice", (Object) false))
                .toList();
        Object plan = owner.ask(
                        "POST",
                        "api/plans",
                        JSON.toJson(Map.of(
                                "name",
                                "Killed",
                                "runs",
                                RUNS,
                                "timedMs",
                                100,
                                "pauseMs",
                                0,
                                "stopOnFailure",
                                false,
                                "items",
                                items)))
                .get("id");
        return (String) owner.ask(
                        "POST",
                        "api/bench/seats",
                        JSON.toJson(Map.of("planId", plan, "runs", RUNS, "timedMs", 100, "pauseMs", 0)))
                .get("code");
    }

    private static Process begin(Path jar, String address, String code, Path folder) throws IOException {
        return new ProcessBuilder(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        "-Xmx256m",
                        "-jar",
                        jar.toString(),
                        address,
                        code,
                        "--yes",
                        "--new-model",
                        "Fellgate,Tarn,laptop",
                        "--quiet-wait",
                        "0",
                        "--state",
                        folder.resolve("state").toString(),
                        "--folder",
                        folder.toString())
                .redirectErrorStream(true)
                .redirectOutput(ProcessBuilder.Redirect.appendTo(
                        folder.resolve("said.txt").toFile()))
                .start();
    }

    /** Of its own tests, as the smallest size shares its records with other parts: good runs, how many of them are different ones, and how many attempts were cut off. */
    private static long[] counted(String[] database) throws Exception {
        try (Connection connection = DriverManager.getConnection(database[0], database[1], database[2]);
                Statement statement = connection.createStatement();
                ResultSet rows = statement.executeQuery(
                        "select sum(state = 'OK'), count(distinct if(state = 'OK', concat(test_id, '/', run_number), null)), sum(state = 'STOPPED') from run join test on test.id = test_id where test_key in ("
                                + TESTS.stream().map(k -> "'" + k + "'").collect(Collectors.joining(", "))
                                + ")")) {
            rows.next();
            return new long[] {rows.getLong(1), rows.getLong(2), rows.getLong(3)};
        }
    }
}
