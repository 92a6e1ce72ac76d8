package yarrowmark.e2e;

import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.util.Arrays;
import java.util.Locale;

/**
 * A published page of twelve figures as its reader gets it, and a write-up of forty pieces and two hundred numbers as its
 * writer has it: until it can be written in, and how many frames a second while somebody types. Run by bin/bench.
 */
public final class WriteUpSpeed {
    private static final boolean SMALLEST = Boolean.getBoolean("yarrowmark.smallest");
    private static final int TRIES = SMALLEST ? 2 : 30;
    private static final int FIGURES = 12;
    private static final int PIECES = SMALLEST ? 4 : 40;
    private static final int NUMBERS = 5;
    private static final int CONFIGURATIONS = 1_000;
    private static final int LETTERS = SMALLEST ? 5 : 120;

    private WriteUpSpeed() {}

    public static void main(String[] arguments) throws Exception {
        try (Program program = Program.start("demo", "write-up-speed");
                Browser browser = new Browser()) {
            browser.signIntoDemo(program.address());
            browser.see("//h1[.='Today']");
            published(program, browser);
            written(program, browser);
            if (SMALLEST) {
                return;
            }
            long readings = ManyReadings.into(program, CONFIGURATIONS);
            program.close();
            System.out.printf(Locale.ROOT, "With %d readings in the ledger:%n", readings);
            try (Program large = Program.startIn("demo", program.records());
                    Browser fresh = new Browser()) {
                fresh.signIntoDemo(large.address());
                written(large, fresh);
            }
        }
    }

    /** Makes a write-up through the interface; what its figures show is drawn by the front end when it is published. */
    private static long make(Browser browser, String title, String pieces) {
        return ((Number) browser.js(
                        """
                const token = document.cookie.match(/XSRF-TOKEN=([^;]+)/)[1];
                return fetch('/api/write-ups', { method: 'POST', headers: { 'content-type': 'application/json', 'x-xsrf-token': token },
                  body: JSON.stringify({ title: arguments[0], models: [], pieces: eval(arguments[1]) }) })
                  .then((r) => r.json()).then((w) => w.writeUp.id);""",
                        title,
                        pieces))
                .longValue();
    }

    private static void published(Program program, Browser browser) throws Exception {
        long id = make(
                browser,
                "Twelve figures",
                "Array.from({ length: " + FIGURES
                        + " }, (_, i) => ({ kind: 'FIGURE', body: { question: i % 3 === 0 ? { of: 'standing' } : i % 3 === 1 ? { of: 'ratios', configuration: 4 + i, base: 1 } : { of: 'bars', metric: 1, configurations: [1, 2, 3, 4, 5, 6, 7, 8], highlight: i } } }))");
        browser.open(program.address() + "write-ups/" + id);
        browser.until(
                "the figures",
                () -> ((Number) browser.js("return document.querySelectorAll('figure [role=img] svg').length"))
                                .intValue()
                        == FIGURES);
        browser.see("//button[.='Publish']").click();
        browser.see("//*[@role='dialog']//button[normalize-space(.)='Publish']").click();
        String address =
                browser.see("//*[@role='dialog']//a[contains(@href, '/w/')]").getDomAttribute("href");
        String url = address.startsWith("http") ? address : program.address() + address.substring(1);
        HttpClient http = HttpClient.newHttpClient();
        HttpRequest ask = HttpRequest.newBuilder(URI.create(url)).build();
        double[] server = new double[TRIES];
        int size = 0;
        for (int i = 0; i < TRIES; i++) {
            long began = System.nanoTime();
            size = http.send(ask, HttpResponse.BodyHandlers.ofByteArray()).body().length;
            server[i] = (System.nanoTime() - began) / 1e6;
        }
        double[] paint = new double[Math.min(TRIES, 9)];
        for (int i = 0; i < paint.length; i++) {
            browser.open(url);
            browser.until("a first paint", () ->
                    (Boolean) browser.js("return performance.getEntriesByName('first-contentful-paint').length > 0"));
            paint[i] = ((Number)
                            browser.js("return performance.getEntriesByName('first-contentful-paint')[0].startTime"))
                    .doubleValue();
        }
        System.out.printf(
                Locale.ROOT,
                "A published page of %d figures: %d kB, server %.1f ms (median of %d, the slowest %.1f), first contentful paint %.0f ms%n",
                FIGURES,
                size / 1000,
                median(server),
                TRIES,
                Arrays.stream(server).max().orElseThrow(),
                median(paint));
    }

    private static void written(Program program, Browser browser) {
        browser.open(program.address() + "standings");
        browser.see("//*[@role='row'][@data-line='2']");
        long id = make(
                browser,
                "Forty pieces",
                "Array.from({ length: " + PIECES + " }, (_, i) => ({ kind: 'TEXT', body: { text: Array.from({ length: "
                        + NUMBERS
                        + " }, (_, k) => `Words on [1.00×](number:n${k}) and more of them, so that it is a line.`).join(' '), numbers: Object.fromEntries(Array.from({ length: "
                        + NUMBERS
                        + " }, (_, k) => [`n${k}`, { of: 'ratio', configuration: 2 + (i + k) % 12, base: 1, metric: 1 }])) } }))");
        browser.open(program.address() + "write-ups/" + id);
        browser.see("//ul[@aria-label='Pieces']/li[" + PIECES + "]");
        browser.open(program.address() + "write-ups");
        browser.see("//a[.='Forty pieces']");
        double open = ((Number) browser.driver()
                        .executeAsyncScript(
                                """
                const done = arguments[arguments.length - 1];
                (async () => {
                  const began = performance.now();
                  [...document.querySelectorAll('a')].find((a) => a.textContent === 'Forty pieces').click();
                  while (document.querySelectorAll('ul[aria-label=Pieces] > li').length < arguments[0]) await new Promise(requestAnimationFrame);
                  await new Promise((r) => requestAnimationFrame(() => requestAnimationFrame(r)));
                  done(performance.now() - began);
                })();""",
                                PIECES))
                .doubleValue();
        browser.until("all numbers looked up", () -> !browser.text().contains("is looked up"));
        browser.see("//*[@aria-label='Text: write']").click();
        browser.see("//textarea[@aria-label='Text']");
        double frames = ((Number) browser.driver()
                        .executeAsyncScript(
                                """
                const done = arguments[arguments.length - 1];
                (async () => {
                  const area = document.querySelector('textarea[aria-label=Text]');
                  const set = Object.getOwnPropertyDescriptor(HTMLTextAreaElement.prototype, 'value').set;
                  const began = performance.now();
                  for (let i = 0; i < arguments[0]; i++) {
                    set.call(area, area.value + 'a');
                    area.dispatchEvent(new Event('input', { bubbles: true }));
                    await new Promise(requestAnimationFrame);
                  }
                  done((1000 * arguments[0]) / (performance.now() - began));
                })();""",
                                LETTERS))
                .doubleValue();
        System.out.printf(
                Locale.ROOT,
                "A write-up of %d pieces and %d numbers: opened after %.0f ms, %.0f frames a second with a letter typed in each%n",
                PIECES,
                PIECES * NUMBERS,
                open,
                frames);
    }

    private static double median(double[] values) {
        double[] sorted = values.clone();
        Arrays.sort(sorted);
        return sorted[sorted.length / 2];
    }
}
