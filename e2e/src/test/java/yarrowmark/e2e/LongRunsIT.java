package yarrowmark.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.function.Predicate;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.WebElement;

/** Runs that take hours, or somebody's steps: batteries and the way to the server, on a phone's page. */
class LongRunsIT extends AtTheDemo {
    /**
     * A battery of our own making in a page whose minutes are one and a half seconds long: long timers and all clocks go 40 times as
     * fast. What the battery is at is kept over reloads, as a real one's is.
     */
    private static final String BATTERY =
            """
        (() => {
          if (window !== top) return;
          const FAST = 40;
          const [now, date, later] = [performance.now.bind(performance), Date.now, window.setTimeout];
          const begin = Number(localStorage.getItem('begin') ?? date());
          localStorage.setItem('begin', String(begin));
          const jump = Number(localStorage.getItem('jump') ?? 0);
          performance.now = () => now() * FAST;
          Date.now = () => begin + jump + (date() - begin) * FAST;
          window.setTimeout = (what, ms, ...more) => later(what, ms >= 30_000 && ms < 3_000_000 ? ms / FAST : ms, ...more);
          const at = () => JSON.parse(localStorage.getItem('battery') ?? '{"level":1,"charging":true}');
          navigator.getBattery = async () => {
            const { level, charging, since } = at();
            const minutes = since === undefined ? 0 : Math.max(0, date() - since) * FAST / 60_000;
            return { level: Math.max(0.01, Math.floor(100 * (level - (charging ? 0 : minutes / 30))) / 100), charging, addEventListener() {}, removeEventListener() {} };
          };
          window.unplug = () => localStorage.setItem('battery', JSON.stringify({ level: at().level, charging: false, since: date() + 2_000 }));
        })();""";

    LongRunsIT() {
        super(Demo.CHANGED);
    }

    private Rounds rounds;

    @BeforeAll
    void ready() {
        rounds = new Rounds(program, browser);
    }

    private Rounds.Invited begun(Browser device, Predicate<String> wanted, int timedMs) {
        Rounds.Invited invited = rounds.invite(wanted, 1, timedMs);
        device.open(program.address() + "j/" + invited.code());
        device.press("It is a new model");
        device.type("Maker", "Pellow");
        device.type("Model", "Long run " + invited.seatId());
        browser.open(program.address() + "suites");
        return invited;
    }

    private static void finished(Browser device) {
        device.until("the end", () -> device.heading().equals("Finished"));
    }

    @Test
    void aBatteryRunsDownGoesEmptyAndIsDeliveredOnTheDayAfter() {
        try (Browser device = new Browser(390, 844)) {
            device.cdp("Page.addScriptToEvaluateOnNewDocument", Map.of("source", BATTERY));
            Rounds.Invited invited = begun(device, "battery-reading"::equals, 1_000);
            device.type("Brightness on a white page", "200");
            device.type("Wireless on", "yes");
            device.press("White page for a meter");
            device.until(
                    "a white page",
                    () -> Boolean.TRUE.equals(device.js(
                            "return document.activeElement.getAttribute('aria-label')?.startsWith('White page')")));
            device.js("document.activeElement.click()");
            device.press("Start round");
            device.seeText("How far down?");
            device.press("Until it is empty");
            device.seeText("It is still on its charger");
            // What it was before it falls is seen first, as of a real one.
            device.js("window.unplug()");
            device.press("It is unplugged");
            device.seeText("Everything is kept on the device");
            assertThat(device.js("return document.documentElement.scrollWidth <= 390"))
                    .isEqualTo(true);
            device.type("A meter beside it shows, W", "6,5");
            device.press("Note it");
            device.seeText("1 reading of the meter noted");
            // The page is discarded in the middle; the run goes on in the next attempt.
            device.driver().navigate().refresh();
            device.seeText("1 reading of the meter noted");
            device.until(
                    "it to be nearly empty",
                    () -> Boolean.TRUE.equals(
                            device.driver()
                                    .executeAsyncScript(
                                            "const done = arguments[0]; navigator.getBattery().then((b) => done(b.level <= 0.01))")));
            // It goes off, and on the next day it hangs on its charger.
            device.open("about:blank");
            device.open(program.address() + "device-icon-192.png");
            device.js(
                    "localStorage.setItem('battery', JSON.stringify({ level: 0.4, charging: true })); localStorage.setItem('jump', String(48 * 3_600_000));");
            device.open(program.address() + "j");
            finished(device);
            List<Rounds.Score> scores = rounds.scores(invited);
            assertThat(scores)
                    .filteredOn(s -> !s.state().equals("OK"))
                    .extracting(Rounds.Score::reason)
                    .contains("RELOADED")
                    .containsOnly("RELOADED");
            Map<String, Rounds.Score> good = scores.stream()
                    .filter(s -> s.state().equals("OK"))
                    .collect(java.util.stream.Collectors.toMap(Rounds.Score::metric, s -> s));
            // 100 % in 30 minutes.
            assertThat(good.get("Reading on battery, an hour").value()).isBetween(150.0, 250.0);
            assertThat(good.get("Reading on battery, from full to 20 %").value())
                    .isBetween(0.3, 0.5);
            assertThat(good.get("Reading on battery, from full to the end").value())
                    .isBetween(0.4, 0.65);
            assertThat(good.get("Reading on battery, by a meter").value()).isEqualTo(6.5);
            assertThat(good.get("Reading on battery, level").words())
                    .contains("From 100 to")
                    .contains("It went empty")
                    .contains("The page was away");
        }
    }

    @Test
    void theWayToTheServerIsMeasuredOneDeviceAfterTheOther() {
        Predicate<String> own = k -> k.startsWith("network-");
        try (Browser one = new Browser(390, 844);
                Browser other = new Browser(390, 844)) {
            Rounds.Invited first = begun(one, own, 200);
            Rounds.Invited second = begun(other, k -> k.equals("network-download-six"), 200);
            one.type("Distance", "1 m");
            one.press("Start round");
            other.press("Start round");
            one.seeText("Go to 1 m");
            one.press("I am there");
            // Whether a step holds is this machine's business, too: the walk may end by itself at any of them.
            String heading = one.until("the next step or the end", () -> stepOrEnd(one, "Go to 3 m"));
            if (heading.equals("Go to 3 m")) {
                one.press("I am there");
                heading = one.until("the step after it or the end", () -> stepOrEnd(one, "Go to 5 m"));
            }
            if (heading.equals("Go to 5 m")) {
                // By keyboard, as on a laptop that is carried.
                WebElement stop = one.driver().findElement(By.xpath("//button[.='I cannot go farther']"));
                stop.sendKeys(org.openqa.selenium.Keys.ENTER);
            }
            finished(one);
            finished(other);
            List<Rounds.Score> scores = rounds.scores(first);
            assertThat(scores)
                    .filteredOn(s -> !s.state().equals("OK"))
                    .extracting(s -> s.key() + " " + s.words())
                    .isEmpty();
            Map<String, Rounds.Score> by = scores.stream()
                    .filter(Rounds.Score::first)
                    .collect(java.util.stream.Collectors.toMap(Rounds.Score::key, s -> s));
            assertThat(by).hasSize(7);
            assertThat(by.get("network-latency").value()).isBetween(0.01, 100.0);
            assertThat(by.get("network-connect").value())
                    .isGreaterThan(by.get("network-latency").value());
            for (String load : List.of("download-one", "download-six", "upload-one", "upload-six")) {
                // In Mbit/s: how many is this machine's business, and it may be busy.
                assertThat(by.get("network-" + load).value()).as(load).isBetween(0.5, 1e6);
                assertThat(by.get("network-" + load).words()).contains("server itself");
            }
            if (heading.equals("Go to 5 m")) {
                assertThat(by.get("network-walk").value())
                        .as("1 m and 3 m held")
                        .isEqualTo(3.0);
                assertThat(by.get("network-walk").words()).contains("nobody could go to 5 m");
            } else {
                assertThat(by.get("network-walk").value()).isLessThan(3.0);
                assertThat(by.get("network-walk").words())
                        .containsAnyOf("did not hold 10 Mbit/s", "the connection was lost");
            }
            assertThat(rounds.scores(second)).allMatch(s -> s.state().equals("OK"));
        }
    }

    private static String stepOrEnd(Browser device, String step) {
        String text = device.text();
        return text.contains(step) ? step : text.contains("Finished") ? "Finished" : null;
    }
}
