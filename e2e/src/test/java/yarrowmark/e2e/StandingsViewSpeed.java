package yarrowmark.e2e;

import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.Statement;
import java.util.Arrays;
import java.util.Locale;

/**
 * How long the standings take from the click to rows that can be used, and how many frames a second they scroll at, with
 * some 200 rows and with some 2,000. Run by bin/bench. The demo's configurations are copied straight into the database with
 * their samples moved a little.
 */
public final class StandingsViewSpeed {
    /** Whether only to see that it works: the smallest size that goes through everything. */
    private static final boolean SMALLEST = Boolean.getBoolean("yarrowmark.smallest");

    private static final int[] COPIES = SMALLEST ? new int[] {2} : new int[] {8, 79};
    private static final int SCROLL_MS = SMALLEST ? 200 : 4_000;
    private static final int TRIES = SMALLEST ? 1 : 7;

    private StandingsViewSpeed() {}

    public static void main(String[] arguments) throws Exception {
        for (int copies : COPIES) {
            try (Program program = Program.start("demo", "speed");
                    Browser browser = new Browser()) {
                copyShelf(program.database(), copies);
                browser.signIntoDemo(program.address());
                measure(program, browser);
            }
        }
    }

    private static void measure(Program program, Browser browser) {
        double[] view = new double[TRIES];
        double[] answer = new double[TRIES];
        for (int i = 0; i < TRIES; i++) {
            browser.open(program.address() + "shelf");
            browser.see("//h1[.='Shelf']");
            answer[i] = timed(browser, "await (await fetch('/api/standings', { cache: 'no-store' })).json()");
            view[i] = timed(
                    browser,
                    """
                document.querySelector('nav a[href^="/standings"]').click();
                while (!document.querySelector('[data-line="0"] svg')) await new Promise(requestAnimationFrame);
                await new Promise((r) => requestAnimationFrame(() => requestAnimationFrame(r)));""");
        }
        long rows = (Long)
                browser.js("return Number(document.querySelector('[role=table]').getAttribute('aria-rowcount')) - 1");
        double frames = scroll(browser, "document.querySelector('[data-scroller]')");
        browser.open("about:blank");
        double plain = scroll(
                browser,
                """
            (() => {
              document.body.innerHTML = '<div style="height: 600px; overflow: auto"><div style="height: 100000px"><p>Nothing but this line.</p></div></div>';
              return document.body.firstElementChild;
            })()""");
        System.out.printf(
                Locale.ROOT,
                "Standings with %d rows: answer %.0f ms, view usable after %.0f ms (medians of %d), scrolls at %.0f frames a second, an empty page at %.0f%n",
                rows,
                median(answer),
                median(view),
                TRIES,
                frames,
                plain);
    }

    /** Frames a second while a scroller goes down and up by a row and more with each frame. */
    private static double scroll(Browser browser, String scroller) {
        return ((Number) browser.driver()
                        .executeAsyncScript(
                                """
            const done = arguments[arguments.length - 1];
            (async () => {
              const scroller = """
                                        + scroller
                                        + """
            ;
              const start = performance.now();
              let frames = 0;
              let down = 1;
              while (performance.now() - start < arguments[0]) {
                if (scroller.scrollTop + scroller.clientHeight >= scroller.scrollHeight - 2) down = -1;
                if (scroller.scrollTop <= 0) down = 1;
                scroller.scrollTop += down * 60;
                await new Promise(requestAnimationFrame);
                frames++;
              }
              done((1000 * frames) / (performance.now() - start));
            })();""",
                                SCROLL_MS))
                .doubleValue();
    }

    private static double timed(Browser browser, String code) {
        return ((Number) browser.driver()
                        .executeAsyncScript(
                                "const done = arguments[arguments.length - 1]; (async () => { const start = performance.now(); "
                                        + code + "; done(performance.now() - start + 1e-9); })();"))
                .doubleValue();
    }

    private static void copyShelf(String[] database, int copies) throws Exception {
        try (Connection connection = DriverManager.getConnection(database[0], database[1], database[2]);
                Statement sql = connection.createStatement()) {
            for (int copy = 1; copy <= copies; copy++) {
                sql.execute("INSERT INTO unit (model_id, label) SELECT id, 'Copy " + copy + "' FROM model");
                sql.execute(
                        "INSERT INTO configuration (unit_id, name, fingerprint, created_at) SELECT u.id, c.name, SHA2(CONCAT(c.id, '-"
                                + copy
                                + "'), 256), c.created_at FROM configuration c JOIN unit o ON o.id = c.unit_id JOIN unit u ON u.model_id = o.model_id AND u.label = 'Copy "
                                + copy + "' WHERE o.label = 'Unit 1'");
                sql.execute(
                        "INSERT INTO sample (configuration_id, metric_id, session_id, n, mean, sum_squares, resolution_variance) "
                                + "SELECT n.id, s.metric_id, s.session_id, s.n, s.mean + 0.02 * " + copy
                                + " * SIN(n.id), s.sum_squares, s.resolution_variance FROM configuration n "
                                + "JOIN configuration c ON n.fingerprint = SHA2(CONCAT(c.id, '-" + copy
                                + "'), 256) JOIN sample s ON s.configuration_id = c.id");
            }
        }
    }

    private static double median(double[] values) {
        double[] sorted = values.clone();
        Arrays.sort(sorted);
        return sorted[sorted.length / 2];
    }
}
