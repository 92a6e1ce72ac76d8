package yarrowmark.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** The built-in suites in a real browser: each test does its work there, and says why where it cannot. */
@Order(2)
class WorkloadsIT extends AtTheDemo {
    WorkloadsIT() {
        super(Demo.CHANGED);
    }

    private Rounds rounds;

    @BeforeAll
    void ready() {
        rounds = new Rounds(program, browser);
    }

    @Test
    @Tag("long")
    void whatDrawsNothingGivesItsKnownAnswerAndAScore() {
        List<String> wanted = rounds.keys().stream()
                .filter(k -> k.matches("(page|desk|storage)-.*|species-list|weir-hash-one|memory-latency"))
                .toList();
        assertThat(wanted).hasSizeGreaterThan(15);
        try (Browser device = new Browser(900, 700)) {
            Map<String, Integer> points = known(rounds.carryOut(device, wanted::contains, 1, 40), wanted);
            assertThat(points.get("memory-latency")).as("x and y of each size").isEqualTo(30);
            assertThat(points.get("storage-sweep-read")).isEqualTo(32);
            leftNothing(device);
        }
    }

    @Test
    @Tag("long")
    void everyTestGivesItsKnownAnswerAndAScore() {
        // Clips and large pictures take minutes on a machine that encodes and draws in software; one of each stands for
        // them.
        Set<String> stand = Set.of("video-encode-vp8", "endurance-weir-hash-all", "graphics-mist-1080");
        List<String> wanted = rounds.keys().stream()
                .filter(k -> !k.matches("video-.*|endurance-.*|battery-.*|network-walk|.*-1080") || stand.contains(k))
                .toList();
        assertThat(wanted).hasSizeGreaterThan(60);
        try (Browser device = new Browser(
                900, 700, "--enable-unsafe-webgpu", "--use-webgpu-adapter=swiftshader", "--enable-features=Vulkan")) {
            List<Rounds.Score> scores = rounds.carryOut(device, wanted::contains, 1, 40);
            Map<String, Integer> points = known(scores, wanted);
            assertThat(points.get("memory-latency")).as("x and y of each size").isEqualTo(30);
            assertThat(points.get("storage-sweep-read")).isEqualTo(32);
            assertThat(points.get("graphics-display")).as("every frame").isGreaterThanOrEqualTo(30);
            assertThat(points.get("endurance-weir-hash-all"))
                    .as("x and y of each loop")
                    .isGreaterThanOrEqualTo(16);
            assertThat(scores)
                    .extracting(Rounds.Score::metric)
                    .contains(
                            "Yarrow processor, total",
                            "Yarrow memory, total",
                            "Yarrow storage, total",
                            "Yarrow browser, total",
                            "Scaling per logical processor");
            leftNothing(device);
        }
    }

    /** @return how many points the first number of each test has */
    private static Map<String, Integer> known(List<Rounds.Score> scores, List<String> wanted) {
        assertThat(scores)
                .filteredOn(s -> !s.state().equals("OK"))
                .extracting(s -> s.key() + ": " + s.reason() + " " + s.words())
                .isEmpty();
        Set<String> there = scores.stream().map(Rounds.Score::key).collect(Collectors.toSet());
        assertThat(there).containsAll(wanted);
        return scores.stream()
                .filter(Rounds.Score::first)
                .collect(Collectors.toMap(Rounds.Score::key, s -> s.samples().size(), Math::max));
    }

    /** What a test wrote to the device is gone again; the page keeps its own runs and files. */
    private static void leftNothing(Browser device) {
        Object left = device.driver()
                .executeAsyncScript(
                        """
                const done = arguments[arguments.length - 1];
                (async () => {
                  const names = [];
                  for await (const name of (await navigator.storage.getDirectory()).keys()) names.push(name);
                  done([...names, ...(await indexedDB.databases()).map((d) => d.name).filter((n) => n !== 'yarrowmark'), ...(await navigator.serviceWorker.getRegistrations()).map((r) => r.scope).filter((s) => !s.endsWith('/j'))]);
                })();""");
        assertThat((List<?>) left).isEmpty();
    }

    /**
     * One of each way in which tests are carried out, but clips, which a machine without a chip for it encodes for minutes: worker, threads, sweep, files, database, frame, service worker, scene, picture on the page. */
    @Test
    void aReloadInTheMiddleOfAnyKindOfTestRepeatsThatRunAndLosesNothing() {
        Set<String> wanted = Set.of(
                "weir-hash-one",
                "plot-matrix-all",
                "memory-copy",
                "storage-read",
                "storage-transactions",
                "page-note-editor",
                "page-ferry",
                "desk-courier",
                "graphics-mist-720",
                "graphics-display");
        try (Browser device = new Browser(900, 700)) {
            device.reloadOnceUnderEachHeading("run 1 of 1");
            List<Rounds.Score> scores = rounds.carryOut(device, wanted::contains, 1, 250);
            assertThat(scores)
                    .filteredOn(s -> "RELOADED".equals(s.reason()))
                    .extracting(Rounds.Score::key)
                    .containsExactlyInAnyOrderElementsOf(wanted);
            assertThat(scores)
                    .filteredOn(s -> s.state().equals("OK") && s.first())
                    .extracting(Rounds.Score::key)
                    .containsAll(wanted);
        }
    }

    @Test
    void aBrowserWithoutGraphicsAndWithoutRoomSaysSoAndGoesOn() {
        try (Browser device = new Browser(900, 700)) {
            device.driver()
                    .executeCdpCommand(
                            "Page.addScriptToEvaluateOnNewDocument",
                            Map.of(
                                    "source",
                                    """
                for (const kind of [OffscreenCanvas, HTMLCanvasElement]) {
                  const own = kind.prototype.getContext;
                  kind.prototype.getContext = function (name, ...more) { return name.startsWith('webgl') ? null : own.call(this, name, ...more); };
                }"""));
            device.driver()
                    .executeCdpCommand(
                            "Storage.overrideQuotaForOrigin",
                            Map.of("origin", program.address().replaceAll("/$", ""), "quotaSize", 5_000_000));
            List<Rounds.Score> scores = rounds.carryOut(
                    device,
                    Set.of(
                            "graphics-mist-720",
                            "gpu-mist-720",
                            "graphics-display",
                            "storage-read",
                            "storage-small-files",
                            "desk-relay")::contains,
                    1,
                    40);
            Map<String, Rounds.Score> byKey =
                    scores.stream().collect(Collectors.toMap(Rounds.Score::key, s -> s, (a, b) -> a));
            assertThat(byKey.get("graphics-mist-720")).satisfies(s -> {
                assertThat(s.state()).isEqualTo("COULD_NOT_RUN");
                assertThat(s.words()).contains("no WebGL 2");
            });
            assertThat(byKey.get("graphics-display").words()).contains("no WebGL 2");
            assertThat(byKey.get("gpu-mist-720").state()).isEqualTo("COULD_NOT_RUN");
            assertThat(byKey.get("gpu-mist-720").words()).contains("WebGPU");
            assertThat(byKey.get("storage-read")).satisfies(s -> {
                // What a browser says about its room beforehand is an estimate: some say more than they then give.
                assertThat(s.state()).isIn("COULD_NOT_RUN", "FAILED");
                assertThat(s.words()).containsAnyOf("Needs 64 MiB", "no more space", "space is used up");
            });
            assertThat(byKey.get("storage-small-files").state())
                    .as("128 KiB are a fraction of what is left")
                    .isEqualTo("OK");
            assertThat(byKey.get("desk-relay").state()).isEqualTo("OK");
        }
    }

    @Test
    void aLostPictureADyingWorkerAndACoarseClockAreSurvived() {
        try (Browser device = new Browser(900, 700)) {
            device.driver()
                    .executeCdpCommand(
                            "Page.addScriptToEvaluateOnNewDocument",
                            Map.of(
                                    "source",
                                    """
                const now = performance.now.bind(performance);
                performance.now = () => Math.floor(now());
                const context = HTMLCanvasElement.prototype.getContext;
                HTMLCanvasElement.prototype.getContext = function (name, ...more) {
                  const made = context.call(this, name, ...more);
                  if (name === 'webgl2' && this.isConnected) requestAnimationFrame(() => made.getExtension('WEBGL_lose_context').loseContext());
                  return made;
                };
                window.Worker = class extends Worker {
                  constructor(address, ...more) {
                    super(address, ...more);
                    if (String(address).includes('one.worker')) queueMicrotask(() => { this.terminate(); this.dispatchEvent(new ErrorEvent('error', { message: 'out of memory' })); });
                  }
                };"""));
            List<Rounds.Score> scores = rounds.carryOut(
                    device, Set.of("weir-hash-one", "graphics-display", "species-list")::contains, 1, 40);
            Map<String, Rounds.Score> byKey =
                    scores.stream().collect(Collectors.toMap(Rounds.Score::key, s -> s, (a, b) -> a));
            assertThat(byKey.get("weir-hash-one")).satisfies(s -> {
                assertThat(s.state()).isEqualTo("FAILED");
                assertThat(s.words()).contains("out of memory");
            });
            assertThat(byKey.get("graphics-display").reason()).isEqualTo("CONTEXT_LOST");
            assertThat(byKey.get("species-list").state()).isEqualTo("OK");
            assertThat(byKey.get("species-list").durationMs())
                    .as("five samples, each a hundred steps of the clock")
                    .isGreaterThan(500);
        }
    }
}
