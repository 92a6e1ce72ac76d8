package yarrowmark.core.capture;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.Properties;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;

class FactCaptureTest {
    static Stream<String> tools() {
        return ToolFiles.NAMES.stream().filter(n -> !n.equals("lsblk-json-parts"));
    }

    /** The samples are ours: the shape is the tool's, every name in them is invented. */
    @ParameterizedTest
    @MethodSource("tools")
    void everyFactInTheSampleOfAToolIsRead(String tool) {
        assertThat(values(FactCapture.read(text(tool + ".txt")))).containsExactlyInAnyOrderEntriesOf(expected(tool));
    }

    @ParameterizedTest
    @ValueSource(strings = {"de", "fr", "es"})
    void toolsThatSpeakAnotherLanguageTellTheSame(String language) {
        assertThat(values(FactCapture.read(text("lscpu-" + language + ".txt"))))
                .containsExactlyInAnyOrderEntriesOf(Map.of(
                        "processor.name", "Corvane 5 Heath",
                        "processor.architecture", "x86 64 bit",
                        "processor.threads", "12",
                        "processor.cores", "6",
                        "processor.sockets", "1",
                        "processor.boost_clock", "4600000000",
                        "processor.cache_l2", "3145728",
                        "processor.cache_l3", "16777216"));
        Map<String, String> system = values(FactCapture.read(text("systeminfo-" + language + ".txt")));
        assertThat(system)
                .containsAllEntriesOf(Map.of(
                        "os.name", "Tern Desk Pro",
                        "os.version", "10.2.2631",
                        "os.build", "2631",
                        "os.language", language,
                        "board.maker", "Hawkmoor",
                        "board.product", "Traverse 16",
                        "processor.base_clock", "2100000000",
                        "processor.sockets", "1",
                        "firmware.version", "1.20",
                        "memory.usable", "34088157184"))
                .containsEntry("firmware.date", "2026-01-20");
    }

    @Test
    void severalToolsMayBePastedAtOnceAndEachIsReadOnItsOwn() {
        String all = Stream.of("os-release", "lscpu", "lsblk-json", "meminfo", "uname", "lspci")
                .map(t -> text(t + ".txt"))
                .collect(Collectors.joining("\n"));
        FactCapture.Captured captured = FactCapture.read(all);
        assertThat(captured.tools())
                .containsExactly("lscpu", "/proc/meminfo", "/etc/os-release", "uname", "lsblk", "lspci");
        assertThat(values(captured))
                .containsAllEntriesOf(expected("lscpu"))
                .containsAllEntriesOf(expected("lsblk-json"))
                .containsAllEntriesOf(expected("lspci"))
                .containsEntry("os.kernel", "6.12.9-2-fen");
        assertThat(captured.doubts())
                .as("lscpu and uname disagree about the architecture")
                .extracting(FactCapture.Found::value)
                .containsExactly("ARM 64 bit");
    }

    @Test
    void aProcessorWithTwoKindsOfCoreHasBothKindsAndAllItsCores() {
        Map<String, String> facts = values(
                FactCapture.read(
                        """
                Architecture:             aarch64
                CPU(s):                   10
                Model name:               Sedge E2
                  Thread(s) per core:     1
                  Core(s) per cluster:    4
                  Socket(s):              -
                  Cluster(s):             2
                  CPU max MHz:            1800.0000
                Model name:               Sedge P2
                  Thread(s) per core:     1
                  Core(s) per cluster:    2
                  Socket(s):              -
                  Cluster(s):             1
                  CPU max MHz:            2600.0000
                """));
        assertThat(facts)
                .containsEntry("processor.name", "Sedge E2")
                .containsEntry("processor.name.2", "Sedge P2")
                .containsEntry("processor.cores", "10")
                .containsEntry("processor.threads", "10")
                .containsEntry("processor.kind_cores", "4")
                .containsEntry("processor.kind_cores.2", "2")
                .containsEntry("processor.kind_clock", "1800000000")
                .containsEntry("processor.kind_clock.2", "2600000000")
                .containsEntry("processor.boost_clock", "2600000000");
    }

    @Test
    void aSecondGraphicsProcessorIsTheSecond() {
        Map<String, String> facts = values(
                FactCapture.read(
                        """
                00:02.0 VGA compatible controller: Sedge Marsh Graphics 12 (rev 0c)
                01:00.0 3D controller: Larkfield Plover M6 (rev a1)
                02:00.0 Non-Volatile memory controller: Larkfield NV 1000
                """));
        assertThat(facts)
                .containsEntry("graphics.renderer", "Sedge Marsh Graphics 12")
                .containsEntry("graphics.renderer.2", "Larkfield Plover M6");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "Hawkmoor 1.20, 20/01/2026               | 1.20",
                "FELLGATE N2HET77W (1.60 ), 5/31/2026     | N2HET77W (1.60)",
                "Pellow Devices Inc. F.20, 2026-03-04     | F.20",
                "Ostler Technologies LTD 6.00, 12/12/2025 | 6.00"
            })
    void theFirmwareOfASystemsReportIsItsVersionWhoeverMadeIt(String told, String version) {
        assertThat(values(FactCapture.read("Total Physical Memory:  16,000 MB\nBIOS Version:   " + told)))
                .containsEntry("firmware.version", version);
    }

    @Test
    void whatIsNotRecognisedIsGivenBackWithItsLine() {
        FactCapture.Captured captured = FactCapture.read("a note of mine\n\nMemTotal:  16265216 kB\nMemFree:  12 kB\n");
        assertThat(captured.facts()).extracting(FactCapture.Found::line).containsExactly(3);
        assertThat(captured.unread()).extracting(FactCapture.Unread::number).containsExactly(1, 4);
        assertThat(captured.lines()).isEqualTo(3);
        assertThat(FactCapture.read("").facts()).isEmpty();
        assertThat(FactCapture.read("NAME=\"Fenland\"\nVERSION_ID=\"12.4\"").tools())
                .containsExactly("/etc/os-release");
    }

    @Test
    void aTerminalsColoursAndThreeThousandLinesOfLogDoNoHarm() {
        String log = IntStream.range(0, 3_000)
                .mapToObj(i -> "\u001B[3" + i % 8 + "m[" + i + "]\u001B[0m something \u001B]0;title\u0007happened\r")
                .collect(Collectors.joining("\n"));
        FactCapture.Captured captured = FactCapture.read(log + "\n\u001B[1mMemTotal:\u001B[0m  16265216 kB\r\n");
        assertThat(values(captured)).containsExactly(Map.entry("memory.usable", "16655581184"));
        assertThat(captured.unread()).hasSize(3_000);
        assertThat(captured.unread().get(7).text()).isEqualTo("[7] something happened");
    }

    @Test
    void brokenAndDeepJsonIsText() {
        assertThat(FactCapture.read("{\n \"blockdevices\": [\n  {\"name\":\"sda\",")
                        .facts())
                .isEmpty();
        assertThat(FactCapture.read("[".repeat(5_000) + "]".repeat(5_000)).facts())
                .isEmpty();
        assertThat(FactCapture.read("{\"a\": }").unread()).hasSize(1);
    }

    @Test
    void nonsenseOfAToolsShapeTellsNothing() {
        assertThat(values(FactCapture.read(
                        "CPU(s): 0\nSocket(s): 99999\nThread(s) per core: 2\nModel name: -\nCPU max MHz: 99999999999")))
                .isEmpty();
    }

    private static Map<String, String> values(FactCapture.Captured captured) {
        return captured.facts().stream().collect(Collectors.toMap(FactCapture.Found::key, FactCapture.Found::value));
    }

    private static Map<String, String> expected(String tool) {
        Properties properties = new Properties();
        try (InputStream in = FactCaptureTest.class.getResourceAsStream(tool + ".expected")) {
            properties.load(new java.io.InputStreamReader(in, StandardCharsets.UTF_8));
        } catch (IOException e) {
            throw new java.io.UncheckedIOException(e);
        }
        return properties.stringPropertyNames().stream()
                .collect(Collectors.toMap(n -> n, properties::getProperty, (a, b) -> a, TreeMap::new));
    }

    private static String text(String name) {
        try (InputStream in = FactCaptureTest.class.getResourceAsStream(name)) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new java.io.UncheckedIOException(e);
        }
    }
}
