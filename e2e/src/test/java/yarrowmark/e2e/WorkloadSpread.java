package yarrowmark.e2e;

import java.time.Duration;
import java.util.List;
import java.util.Locale;
import org.openqa.selenium.By;
import org.openqa.selenium.WebElement;

/** How repeatable the built-in tests are on this machine: one session of ten runs, as the ledger sums it up. Run by bin/bench. */
public final class WorkloadSpread {
    private static final int RUNS = 10;

    private WorkloadSpread() {
    }

    public static void main(String[] arguments) {
        System.out.printf(Locale.ROOT, "The machine itself: spread %.2f %% over %d seconds of one integer loop, no browser%n", ownSpread(), RUNS);
        try (Program program = Program.start("demo", "spread"); Browser reviewer = new Browser(); Browser device = new Browser(900, 700)) {
            reviewer.signIntoDemo(program.address());
            reviewer.open(program.address() + "bench?runs=" + RUNS + "&timed=3000&pause=2000");
            reviewer.press("Make a code");
            device.open(program.address() + "j/" + reviewer.see("//*[@data-testid='code']").getText());
            device.press("It is a new model");
            device.type("Maker", "Pellow");
            device.type("Model", "Bench machine");
            device.press("Start first round");
            // Away from the bench: a page that follows a round live would share the machine with it.
            reviewer.open("about:blank");
            device.until("the round", Duration.ofMinutes(15), () -> device.driver().findElement(By.tagName("h1")).getText().equals("Finished"));
            reviewer.open(program.address() + "bench");
            WebElement readings = reviewer.see("//article//a[.='Its readings']");
            String session = readings.getAttribute("href").replaceAll(".*session=(\\d+).*", "$1");
            System.out.printf("Spread over %d runs of 3 s, headless Chromium, %d processors%n", RUNS, Runtime.getRuntime().availableProcessors());
            for (List<?> row : rows(reviewer, session)) {
                System.out.printf(Locale.ROOT, "  %-24s %12.1f %-12s spread %5.2f %%   %5.0f ms a run%n", row.toArray());
            }
        }
    }

    /** A loop that needs one processor and no memory: what wanders here is the machine, not a test. */
    private static double ownSpread() {
        double[] logs = new double[RUNS];
        double mean = 0;
        long x = 1;
        for (int second = -1; second < RUNS; second++) {
            long start = System.nanoTime();
            long rounds = 0;
            while (System.nanoTime() - start < 1_000_000_000L) {
                for (int i = 0; i < 100_000; i++) {
                    x ^= x << 13;
                    x ^= x >>> 7;
                    x ^= x << 17;
                }
                rounds++;
            }
            // The first second warms up. The impossible value keeps the loop from being left out as useless.
            if (second >= 0) {
                logs[second] = Math.log(rounds) + (x == 0 ? 1 : 0);
                mean += logs[second] / RUNS;
            }
        }
        double squares = 0;
        for (double log : logs) {
            squares += (log - mean) * (log - mean);
        }
        return 100 * Math.expm1(Math.sqrt(squares / (RUNS - 1)));
    }

    /** Test, centre, unit, spread and mean duration, one row a test, from the server's own answers. */
    @SuppressWarnings("unchecked")
    private static List<List<?>> rows(Browser reviewer, String session) {
        return (List<List<?>>) reviewer.driver().executeAsyncScript("""
            const done = arguments[arguments.length - 1];
            (async () => {
              const ledger = await (await fetch('/api/ledger?size=200&state=COUNTED&session=' + arguments[0])).json();
              const tests = [...new Set(ledger.rows.map((r) => r.testId))].sort((a, b) => a - b);
              const rows = [];
              for (const test of tests) {
                const own = ledger.rows.filter((r) => r.testId === test);
                const readings = await Promise.all(own.map(async (r) => (await fetch('/api/readings/' + r.readingId)).json()));
                const mean = readings.reduce((sum, r) => sum + r.durationMs, 0) / readings.length;
                const s = readings[0].sample;
                rows.push([own[0].test, s.centre + 1e-9, own[0].unit, s.spreadPercent + 1e-9, mean + 1e-9]);
              }
              done(rows);
            })();""", session);
    }
}
