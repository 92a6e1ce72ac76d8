package yarrowmark.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.PosixFilePermission;
import java.nio.file.attribute.PosixFilePermissions;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.openqa.selenium.WebElement;

/** A lab of several people, programs with keys, and its records kept and brought back. */
@Order(4)
class LabIT {
    private static final Path BIN = Path.of("..", "bin").toAbsolutePath().normalize();
    private static final String PASSWORD = "heron kettle gravel";
    private static Program program;
    private static Browser owner;

    private record Ran(int code, String said, String out) {}

    @BeforeAll
    static void demo() {
        program = Program.start("demo", "lab");
        owner = new Browser();
        owner.signIntoDemo(program.address());
    }

    @AfterAll
    static void stop() {
        if (owner != null) {
            owner.close();
        }
        program.close();
    }

    private static Ran run(Path var, String... words) throws IOException, InterruptedException {
        Path said = Files.createTempFile("said", ".txt");
        Path out = Files.createTempFile("out", ".txt");
        ProcessBuilder builder = new ProcessBuilder(Stream.concat(
                                Stream.of(BIN.resolve(words[0]).toString()),
                                Stream.of(words).skip(1))
                        .toList())
                .redirectError(said.toFile())
                .redirectOutput(out.toFile());
        builder.environment().put("YARROWMARK_VAR", var.toString());
        builder.environment().put("JAVA_TOOL_OPTIONS", Program.SHORT_LIVED);
        int code = builder.start().waitFor();
        return new Ran(code, Files.readString(said), Files.readString(out));
    }

    private static WebElement shownOnce() {
        return owner.see("//*[@role='status'][contains(., 'shown this once')]//code");
    }

    @Test
    void somebodyIsInvitedComesInIsGivenARoleAndIsRemoved() {
        owner.open(program.address() + "people");
        owner.choose("Role of who is invited", "reader");
        owner.press("Make a link");
        String link = shownOnce().getText();
        try (Browser guest = new Browser()) {
            guest.open(link);
            guest.seeText("wren invites you as a reader");
            guest.see("//input[@name='name']").sendKeys("Merle Ashdown");
            guest.see("//input[@name='password']").sendKeys("Password2026!");
            guest.press("Come in");
            guest.seeText("one of those that are tried first");
            guest.see("//input[@name='password']").clear();
            guest.type("Password", PASSWORD);
            guest.press("Come in");
            guest.see("//h1[.='Standings']");
            assertThat(guest.driver().getCurrentUrl()).doesNotContain("#");

            guest.open(program.address() + "people");
            guest.seeText("Merle Ashdown");
            assertThat(guest.text()).doesNotContain("Make a link");

            owner.open(program.address() + "people");
            owner.choose("Role of Merle Ashdown", "reviewer");
            owner.see("//tr[contains(., 'Merle Ashdown')][contains(., 'reviewer')]");
            owner.js("window.confirm = () => true");
            owner.press("Remove Merle Ashdown");
            owner.until("them gone", () -> owner.driver()
                    .findElements(By.xpath("//td[starts-with(., 'Merle Ashdown')]"))
                    .isEmpty());
            guest.open(program.address() + "shelf");
            guest.see("//input[@autocomplete='current-password']");
        }
        try (Browser late = new Browser()) {
            late.open(link);
            late.seeText("This link works once");
        }
        owner.open(program.address() + "people/log?person=Merle+Ashdown");
        owner.seeText("joined as reader");
        assertThat(owner.complaints()).isEmpty();
    }

    @Test
    void aKeyMadeHereIsUsedByAProgramAndTakenBack() throws Exception {
        owner.open(program.address() + "people");
        owner.see("//input[@aria-label='Name of the key']").sendKeys("night run");
        owner.press("Make it");
        String key = shownOnce().getText();
        HttpRequest ask = HttpRequest.newBuilder(URI.create(program.address() + "api/models"))
                .header("Authorization", "Bearer " + key)
                .build();
        HttpClient http = HttpClient.newHttpClient();
        assertThat(http.send(ask, HttpResponse.BodyHandlers.ofString()).statusCode())
                .isEqualTo(200);
        owner.open(program.address() + "people");
        owner.see("//tr[contains(., 'night run')][not(contains(., 'never'))]");
        owner.js("window.confirm = () => true");
        owner.press("Revoke the key night run");
        owner.seeText("There is none. A program that comes with a key");
        assertThat(http.send(ask, HttpResponse.BodyHandlers.ofString()).statusCode())
                .isEqualTo(401);
    }

    @Test
    void whatAProgramCanAskIsReadAndSearched() {
        owner.open(program.address() + "people");
        owner.see("//a[.='the interface for programs']").click();
        owner.see("//h1[.='Interface for programs']");
        owner.see("//input[@type='search']").sendKeys("ledger/csv");
        owner.until(
                "one left",
                () -> owner.driver().findElements(By.xpath("//details")).size() == 1);
        owner.see("//summary[contains(., '/api/ledger/csv')]").sendKeys(Keys.ENTER);
        owner.see("//details//th[.='model']");
        owner.see("//input[@type='search']").sendKeys(" nothing like it");
        owner.seeText("No request is about that");
        assertThat(owner.complaints()).isEmpty();
    }

    /** While somebody goes on adding to them: one moment is kept, and comes back letter by letter (which the command checks). */
    @Test
    void recordsAreKeptWhileWorkGoesOnAndComeBackElsewhere(@TempDir Path folder) throws Exception {
        AtomicBoolean stop = new AtomicBoolean();
        Thread work = new Thread(() -> {
            for (int i = 0; !stop.get(); i++) {
                owner.js(
                        "const done = arguments; return fetch('/api/models', { method: 'POST', headers: { 'content-type': 'application/json', 'x-xsrf-token': document.cookie.match(/XSRF-TOKEN=([^;]+)/)[1] }, body: JSON.stringify({ maker: 'Pellow', name: 'Kept ' + arguments[0], deviceClass: 'LAPTOP' }) }).then((r) => r.status)",
                        i);
            }
        });
        Path file = folder.resolve("lab.tar.gz");
        work.start();
        try {
            Ran kept = run(program.records(), "backup", file.toString(), "demo");
            assertThat(kept.code()).as(kept.said()).isZero();
        } finally {
            stop.set(true);
            work.join();
        }
        assertThat(Files.getPosixFilePermissions(file)).isEqualTo(PosixFilePermissions.fromString("rw-------"));
        assertThat(run(program.records(), "backup", file.toString(), "demo").said())
                .contains("never takes another one's place");
        assertThat(run(program.records(), "restore", file.toString(), "demo").said())
                .contains("is running");

        Path elsewhere = Files.createDirectory(folder.resolve("elsewhere"));
        Ran back = run(elsewhere, "restore", file.toString(), "demo");
        assertThat(back.code()).as(back.said()).isZero();
        assertThat(run(elsewhere, "restore", file.toString(), "demo").said()).contains("there are records in");

        byte[] whole = Files.readAllBytes(file);
        Path cut = folder.resolve("cut.tar.gz");
        Files.write(cut, java.util.Arrays.copyOf(whole, whole.length * 2 / 3));
        Path changed = folder.resolve("changed.tar.gz");
        Files.copy(file, changed);
        Files.write(changed, "more".getBytes(StandardCharsets.UTF_8), StandardOpenOption.APPEND);
        Path nowhere = Files.createDirectory(folder.resolve("nowhere"));
        Ran refused = run(nowhere, "restore", cut.toString(), "demo");
        assertThat(refused.code()).isNotZero();
        assertThat(refused.said()).contains("not a whole backup");
        try (Stream<Path> left = Files.list(nowhere)) {
            assertThat(left).as("nothing is left behind").isEmpty();
        }
    }

    /** A backup with its checksums made anew proves nothing: what it must not do, it cannot. */
    @Test
    void aTamperedBackupDoesNothingAndASignedOneIsKnown(@TempDir Path folder) throws Exception {
        Path mark = folder.resolve("it-ran");
        bash(
                folder,
                "openssl genpkey -algorithm ed25519 -out key.pem && openssl pkey -in key.pem -pubout -out public.pem"
                        + " && openssl genpkey -algorithm ed25519 | openssl pkey -pubout -out other.pem");
        Path file = folder.resolve("lab.tar.gz");
        String[] signed = {
            "backup",
            file.toString(),
            "demo",
            "--sign",
            folder.resolve("key.pem").toString()
        };
        assertThat(run(program.records(), signed).code()).isZero();
        Path nowhere = Files.createDirectory(folder.resolve("nowhere"));
        for (String tampering : List.of(
                "sed -i '1i \\\\! touch " + mark + "' records.sql",
                "sed -i '1i system touch " + mark + "' records.sql",
                "echo 'create trigger t before insert on model for each row set new.name = 1;' >>records.sql",
                "echo more >certificate-of-mine",
                "mkdir -p certificate && ln -s /etc/passwd certificate/own-key.pem",
                "mkdir -p certificate && echo unlisted >certificate/own-key.pem && list=no")) {
            Path bad = folder.resolve("bad.tar.gz");
            bash(
                    folder,
                    "set -e; rm -rf open bad.tar.gz; mkdir open; tar -C open -xzf lab.tar.gz; cd open; rm -f manifest.signature; "
                            + tampering
                            + "; head -3 manifest >m; if [ \"${list:-}\" = no ]; then sha256sum records.sql >>m; else find . -type f ! -name m ! -name manifest -printf '%P\\n' | sort | xargs sha256sum >>m; fi; mv m manifest; tar -czf "
                            + bad + " *");
            Ran refused = run(nowhere, "restore", bad.toString(), "demo");
            assertThat(refused.code()).as(tampering + ": " + refused.said()).isNotZero();
            assertThat(refused.said()).as(tampering).contains("Nothing was changed");
            assertThat(mark).as(tampering).doesNotExist();
        }
        assertThat(run(
                                nowhere,
                                "restore",
                                folder.resolve("bad.tar.gz").toString(),
                                "--check",
                                "--signed-by",
                                folder.resolve("public.pem").toString())
                        .code())
                .isNotZero();
        assertThat(run(
                                nowhere,
                                "restore",
                                file.toString(),
                                "--check",
                                "--signed-by",
                                folder.resolve("other.pem").toString())
                        .said())
                .contains("is not signed with the key to");
        Ran good = run(
                nowhere,
                "restore",
                file.toString(),
                "--check",
                "--signed-by",
                folder.resolve("public.pem").toString());
        assertThat(good.code()).as(good.said()).isZero();
        try (Stream<Path> left = Files.list(nowhere)) {
            assertThat(left).as("nothing is left behind").isEmpty();
        }
    }

    private static void bash(Path where, String script) throws IOException, InterruptedException {
        assertThat(new ProcessBuilder("bash", "-c", script)
                        .directory(where.toFile())
                        .inheritIO()
                        .start()
                        .waitFor())
                .as(script)
                .isZero();
    }

    @Test
    void theWholeLabGoesAwayAsOpenDataAndIsALabAgainElsewhere(@TempDir Path folder) throws Exception {
        Path file = folder.resolve("lab.zip");
        Ran written = run(program.records(), "export", file.toString(), "demo");
        assertThat(written.code()).as(written.said()).isZero();
        assertThat(run(program.records(), "export", file.toString(), "demo").said())
                .contains("never takes another one's place");
        // As an older program would have written it: it is read in its own form, and brought to ours as it is tried
        // out.
        Path older = folder.resolve("older.zip");
        rewritten(file, older, text -> text.replaceFirst("\"form\" : \\d+", "\"form\" : 21"));
        Path elsewhere = Files.createDirectory(folder.resolve("elsewhere"));
        Ran read = run(elsewhere, "import", older.toString());
        assertThat(read.code()).as(read.said()).isZero();
        assertThat(run(elsewhere, "import", older.toString()).said()).contains("there are records in");
        try (Program other = Program.startIn("start", elsewhere);
                Browser first = new Browser()) {
            first.open(other.address());
            first.seeText("Saltmarsh Kit Review is here, and yours");
            first.type("Your name", "Merle Ashdown");
            first.type("Password", PASSWORD);
            first.press("Open the shelf");
            first.see("//nav");
            first.open(other.address() + "standings");
            owner.open(program.address() + "standings");
            assertThat(rowsOf(first)).isNotEmpty().isEqualTo(rowsOf(owner));
            assertThat(elsewhere.resolve("start/backups"))
                    .as("the import had brought it to our form, so the start had nothing to update")
                    .doesNotExist();
        }
        Path nowhere = Files.createDirectory(folder.resolve("nowhere"));
        byte[] whole = Files.readAllBytes(file);
        Files.write(older, java.util.Arrays.copyOf(whole, whole.length / 2));
        Ran refused = run(nowhere, "import", older.toString());
        assertThat(refused.code()).isNotZero();
        assertThat(refused.said()).contains("not a whole ZIP", "Nothing was changed");
        try (Stream<Path> left = Files.list(nowhere)) {
            assertThat(left).as("nothing is left behind").isEmpty();
        }
    }

    /** Records on a database that is somebody else's, kept each day without anybody thinking of it. */
    @Test
    void aDatabaseOfOnesOwnIsUsedAndKeptEachDay(@TempDir Path folder) throws Exception {
        Process database = new ProcessBuilder(
                        BIN.resolve("lib/database").toString(),
                        folder.resolve("own").toString())
                .redirectError(ProcessBuilder.Redirect.INHERIT)
                .start();
        try {
            String[] access = new BufferedReader(
                            new InputStreamReader(database.getInputStream(), StandardCharsets.UTF_8))
                    .readLine()
                    .split("\t");
            Path var = Files.createDirectory(folder.resolve("var"));
            Map<String, String> environment = Map.of(
                    "YARROWMARK_DB_URL", access[0],
                    "YARROWMARK_DB_USER", access[1],
                    "YARROWMARK_DB_PASSWORD", access[2]);
            try (Program lab = Program.startIn("start", var, environment, List.of("--backups", "2"));
                    Browser browser = new Browser()) {
                browser.open(lab.address());
                browser.type("Name of your lab", "Kelp lab");
                browser.type("Your name", "Merle Ashdown");
                browser.type("Password", PASSWORD);
                browser.press("Open the shelf");
                browser.see("//nav");
                Path start = var.resolve("start");
                browser.until("the first backup", () -> Files.exists(start.resolve("backup.state")));
                assertThat(Files.readString(start.resolve("backup.state"))).startsWith("ok ");
                try (Stream<Path> kept = Files.list(start.resolve("backups"))) {
                    assertThat(kept).hasSize(1);
                }
                assertThat(start.resolve("mariadb")).doesNotExist();
                Files.writeString(start.resolve("backup.state"), "failed 1 there is no room");
                browser.driver().navigate().refresh();
                browser.seeText("The last backup failed: there is no room");
            }
            assertThat(database.isAlive()).as("it is not ours to stop").isTrue();
        } finally {
            database.getOutputStream().close();
            database.waitFor();
        }
    }

    private static List<String> rowsOf(Browser browser) {
        browser.see("//*[@role='row'][@data-line='2']");
        return browser.driver().findElements(By.cssSelector("[role=row][data-line]")).stream()
                .map(WebElement::getText)
                .toList();
    }

    private static String sha256(byte[] bytes) {
        try {
            return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(bytes));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e);
        }
    }

    /** Columns at the end of tables that older programs did not know, the last one first. */
    private static final Map<String, List<String>> ADDED = Map.of(
            "data/test.csv", List.of("command"),
            "data/plan.csv", List.of("used_name"),
            "data/session.csv", List.of("counts", "tests"),
            "data/metric.csv", List.of("behind", "typed", "poor_limit", "good_limit"),
            "data/write_up.csv", List.of("kind"),
            "data/edition.csv", List.of("photo", "description"),
            "data/frozen_standing.csv", List.of("ask", "living", "listed"));

    /** The table without its last column. Cells in quotes may have line breaks and commas in them. */
    private static byte[] without(String column, byte[] table) {
        String text = new String(table, StandardCharsets.UTF_8);
        assertThat(text.lines().findFirst().orElseThrow()).endsWith(column);
        StringBuilder shorter = new StringBuilder();
        boolean quoted = false;
        int begin = 0;
        int comma = -1;
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            if (c == '"') {
                quoted = !quoted;
            } else if (!quoted && c == ',') {
                comma = i;
            } else if (!quoted && c == '\n') {
                shorter.append(text, begin, comma).append("\r\n");
                begin = i + 1;
            }
        }
        return shorter.toString().getBytes(StandardCharsets.UTF_8);
    }

    private static void rewritten(Path from, Path to, UnaryOperator<String> description) throws IOException {
        try (ZipFile zip = new ZipFile(from.toFile());
                ZipOutputStream out = new ZipOutputStream(Files.newOutputStream(to))) {
            Map<String, byte[]> files = new LinkedHashMap<>();
            for (ZipEntry entry : java.util.Collections.list(zip.entries())) {
                files.put(entry.getName(), zip.getInputStream(entry).readAllBytes());
            }
            String said = description.apply(new String(files.get("datapackage.json"), StandardCharsets.UTF_8));
            for (Map.Entry<String, List<String>> added : ADDED.entrySet()) {
                byte[] now = files.get(added.getKey());
                byte[] older = now;
                for (String column : added.getValue()) {
                    older = without(column, older);
                }
                files.put(added.getKey(), older);
                said = said.replace(sha256(now), sha256(older));
            }
            files.put("datapackage.json", said.getBytes(StandardCharsets.UTF_8));
            for (Map.Entry<String, byte[]> file : files.entrySet()) {
                out.putNextEntry(new ZipEntry(file.getKey()));
                out.write(file.getValue());
                out.closeEntry();
            }
        }
    }

    @Test
    void aFullDiskLeavesNoHalfBackup(@TempDir Path folder) throws Exception {
        // /dev/full is a disk without room for whoever writes to it.
        Ran full = run(program.records(), "backup", "/dev/full", "demo");
        assertThat(full.code()).isNotZero();
        Path closed = Files.createDirectory(folder.resolve("closed"));
        Files.writeString(closed.resolve("file"), "x");
        Ran refused = run(
                program.records(), "backup", closed.resolve("file/below.tar.gz").toString(), "demo");
        assertThat(refused.code()).isNotZero();
        assertThat(refused.said()).contains("cannot be made");
    }

    @Test
    void whoeverCannotGetInIsLetInFromTheMachine() throws Exception {
        assertThat(run(program.records(), "people", "reset", "x'; drop table person; --", "demo")
                        .said())
                .contains("nobody here is called");
        assertThat(run(program.records(), "people", "list", "demo").out()).contains("owner  wren");
        Ran made = run(program.records(), "people", "reset", "wren", "demo");
        assertThat(made.code()).as(made.said()).isZero();
        try (Browser locked = new Browser()) {
            locked.open(program.address() + made.out().strip().substring(1));
            locked.seeText("For wren");
        }
    }

    @Test
    void nobodyElseOnTheMachineReadsTheRecords() throws IOException {
        for (String file :
                List.of("demo", "demo/mariadb", "demo/mariadb/password", "demo/server.log", "demo/database.ready")) {
            Set<PosixFilePermission> may =
                    Files.getPosixFilePermissions(program.records().resolve(file));
            assertThat(may)
                    .as(file)
                    .doesNotContain(
                            PosixFilePermission.GROUP_READ,
                            PosixFilePermission.OTHERS_READ,
                            PosixFilePermission.GROUP_EXECUTE,
                            PosixFilePermission.OTHERS_EXECUTE);
        }
    }
}
