package yarrowmark.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.openqa.selenium.WebElement;

/** What a view asks is followed into everything that can be made of it: the same question, and the same numbers. */
@Order(4)
class QuestionTravelsIT extends AtTheDemo {
    /** A view with a question that somebody narrowed, and how to see that it is still the same one. */
    enum View {
        STANDINGS(
                "standings?classes=[\"LAPTOP\"]&metric=1",
                "/api/standings?deviceClass=LAPTOP&metric=1",
                "([0-9.]+)\\s+index ",
                "Weir hash, one thread"),
        COMPARE(
                "compare?ids=[4,6]&base=4&without=[\"group:STORAGE\"]",
                "/api/compare?base=4&with=6&without=group:STORAGE",
                "([0-9.]+ % (?:higher|lower|less time|more power), [a-z ]+?)\\s",
                "ithout Storage"),
        TRENDS(
                "trends?model=7&along=os.kernel",
                "/api/trends?model=7&along=os.kernel",
                "Overall, [0-9.]+ to [0-9.]+: ([0-9.]+)×",
                "kernel"),
        REPORT_CARD(
                "shelf/configurations/16/card",
                "/api/configurations/16/report-card",
                "\\s([0-9 .]+ (?:ops/s|MB/s|GB/s|fps|s|W|rounds/min|drawings/s))\\s",
                "Pellow Drift 13"),
        CHARTS(
                "standings?form=charts&tests=[1,2]&classes=[\"LAPTOP\"]",
                "/api/compare/charts?deviceClass=LAPTOP&onlyTests=1&onlyTests=2",
                "([0-9][0-9 .]* ops/s)\\s",
                "Weir hash, all threads");

        final String address;
        final String call;
        final Pattern numbers;
        /** Words that say what was asked, wherever it went. */
        final String asked;

        View(String address, String call, String numbers, String asked) {
            this.address = address;
            this.call = call;
            this.numbers = Pattern.compile(numbers);
            this.asked = asked;
        }
    }

    private static final Pattern NUMBER = Pattern.compile("-?[0-9]+(?:\\.[0-9]+)?(?:[eE]-?[0-9]+)?");

    QuestionTravelsIT() {
        super(Demo.WRITTEN_ABOUT);
    }

    @ParameterizedTest
    @EnumSource(View.class)
    void aQuestionIsTheSameInEverythingThatIsMadeOfItsView(View view, @TempDir Path folder) throws IOException {
        browser.cdp("Browser.setDownloadBehavior", Map.of("behavior", "allow", "downloadPath", folder.toString()));
        browser.open(program.address() + view.address);
        List<String> seen = browser.until("numbers in the view", () -> {
            List<String> found = numbersIn(view, shown("main"));
            return found.isEmpty() ? null : found;
        });

        // What its reader takes along.
        if (view == View.CHARTS) {
            browser.press("all as pictures");
            holdsNumbers(view, "the files of the archive", seen, filesOf(taken(folder, ".zip")));
            StringBuilder pictures = new StringBuilder();
            for (int i = 0; i < 2; i++) {
                browser.driver()
                        .findElements(By.xpath("//button[.='export']"))
                        .get(i)
                        .click();
                browser.press("SVG, light");
                Path picture =
                        folder.resolve(i == 0 ? "weir-hash-one-thread-light.svg" : "weir-hash-all-threads-light.svg");
                browser.until("the picture", () -> Files.exists(picture));
                pictures.append(Files.readString(picture));
                browser.keys(Keys.ESCAPE);
            }
            holds(view, "the pictures", seen, drawnWords(pictures.toString()));
        } else {
            exports().click();
            browser.press("SVG, light");
            holds(view, "the picture", seen, drawnWords(text(taken(folder, ".svg"))));
            if (browser.driver().findElements(By.xpath("//button[.='CSV']")).isEmpty()) {
                exports().click();
            }
            browser.press("CSV");
            holdsNumbers(view, "the file", seen, text(taken(folder, ".csv")));
            browser.keys(Keys.ESCAPE);
        }

        // What a program is told that asks the same.
        holdsNumbers(view, "the answer of the API", seen, answer(view));

        // What is written of it.
        browser.see("//button[.='Write this up']").click();
        browser.see("//textarea[@aria-label='Title']");
        String writeUp = browser.driver().getCurrentUrl();
        browser.until("the figure", () -> holding(seen, written()).equals(seen));
        assertThat(written()).as("the write-up says what was asked").contains(view.asked);
        String figure = drawing("ul[aria-label=Pieces] > li:first-child");

        // What an audience sees.
        browser.open(writeUp + "/stage");
        browser.see("//*[contains(@class, 'stage-sheet')]//h1");
        browser.keys(Keys.ARROW_RIGHT);
        if (view == View.TRENDS || view == View.REPORT_CARD) {
            browser.until("the very drawing of the piece", () -> drawing(".stage-sheet")
                    .equals(figure));
        } else {
            browser.until("a row that comes next", () -> shown(".stage").matches("(?s).*\\b0 of [0-9]+ shown.*"));
            StringBuilder scenes = new StringBuilder();
            browser.until("every number on the stage", () -> {
                scenes.append(shown(".stage-sheet")).append('\n');
                browser.keys(Keys.SPACE);
                return holding(seen, scenes.toString()).equals(seen);
            });
            assertThat(scenes.toString()).contains(view.asked);
        }

        // What its readers get.
        browser.open(writeUp);
        browser.see("//button[.='Publish']").click();
        browser.see("//*[@role='dialog']//button[normalize-space(.)='Publish']").click();
        String page =
                browser.see("//*[@role='dialog']//a[contains(@href, '/w/')]").getDomProperty("href");
        browser.open(page);
        browser.see("//h1");
        holds(view, "the published page", seen, shown("body") + drawing("figure"));
        assertThat((String) browser.js("return document.body.textContent")).contains(view.asked);
        assertThat(browser.complaints()).isEmpty();
    }

    private static List<String> numbersIn(View view, String text) {
        return view.numbers
                .matcher(text)
                .results()
                .map(r -> r.group(1).strip())
                .distinct()
                .toList();
    }

    private String shown(String selector) {
        return plain((String) browser.js(
                "const all = [...document.querySelectorAll(arguments[0])]; return all.map((e) => e.innerText + '\\n' + [...e.querySelectorAll('svg text')].map((t) => t.textContent).join('\\n')).join('\\n')",
                selector));
    }

    /** Thin and unbreakable spaces are spaces. */
    private static String plain(String text) {
        return text.replaceAll("[\\u00a0\\u2009\\u202f]", " ");
    }

    private String written() {
        return shown("ul[aria-label=Pieces]")
                + plain((String) browser.js("return [...document.querySelectorAll('textarea, input')]"
                        + ".map((t) => t.value + ' ' + t.placeholder).join('\\n')"));
    }

    /** The marks and words of the first drawing in there, in its form for wide screens. */
    private String drawing(String in) {
        return plain((String) browser.js("return document.querySelector(arguments[0] + ' svg')?.innerHTML ?? ''", in));
    }

    private static String drawnWords(String svg) {
        return plain(svg.replaceAll("<[^>]+>", "\n").replace("&#160;", " ").replace("&amp;", "&"));
    }

    private String answer(View view) {
        return (String) browser.driver()
                .executeAsyncScript(
                        "const done = arguments[1]; fetch(arguments[0]).then(async (r) => done(r.status + ' ' + await r.text()))",
                        view.call);
    }

    private static List<String> holding(List<String> seen, String text) {
        return seen.stream().filter(text::contains).toList();
    }

    private static void holds(View view, String what, List<String> seen, String text) {
        assertThat(holding(seen, text)).as(what + " of " + view).isEqualTo(seen);
    }

    /** Files and answers have every digit: some number in there is the one that was seen when it is rounded as that was. */
    private static void holdsNumbers(View view, String what, List<String> seen, String answered) {
        String text = plain(answered);
        List<Double> all = NUMBER.matcher(text)
                .results()
                .map(r -> Double.parseDouble(r.group()))
                .toList();
        assertThat(seen.stream()
                        .filter(s -> text.contains(s) || all.stream().anyMatch(n -> isSeenAs(s, n)))
                        .toList())
                .as(what + " of " + view + ": " + text.lines().limit(3).toList())
                .isEqualTo(seen);
    }

    private static boolean isSeenAs(String seen, double number) {
        Matcher digits = NUMBER.matcher(seen.replaceAll("(?<=[0-9]) (?=[0-9]{3})", ""));
        if (!digits.find()) {
            return false;
        }
        String shown = digits.group();
        int places = shown.contains(".") ? shown.length() - shown.indexOf('.') - 1 : 0;
        double half = 0.5000001 * Math.pow(10, -places);
        double value = Double.parseDouble(shown);
        // "8.1 % higher" is a ratio of 1.081 where all digits are.
        double per = seen.contains("%")
                ? Math.min(
                        Math.abs(100 * (number - 1) - value),
                        Math.min(Math.abs(100 * (1 - number) - value), Math.abs(100 * (1 / number - 1) - value)))
                : Double.POSITIVE_INFINITY;
        return Math.min(per, Math.min(Math.abs(number - value), Math.abs(1 - 1 / number - value / 100) * 100)) <= half;
    }

    private WebElement exports() {
        return browser.see("//button[.='Export' or .='export']");
    }

    private static String text(byte[] file) {
        return new String(file, StandardCharsets.UTF_8);
    }

    /** The tables of an archive, one after the other; each has its picture beside it. */
    private static String filesOf(byte[] archive) throws IOException {
        StringBuilder all = new StringBuilder();
        List<String> names = new ArrayList<>();
        try (ZipInputStream zip = new ZipInputStream(new ByteArrayInputStream(archive))) {
            for (ZipEntry entry = zip.getNextEntry(); entry != null; entry = zip.getNextEntry()) {
                names.add(entry.getName());
                if (entry.getName().endsWith(".csv")) {
                    all.append(text(zip.readAllBytes())).append('\n');
                }
            }
        }
        assertThat(names.stream().filter(n -> n.endsWith(".csv")))
                .allSatisfy(n -> assertThat(names).contains(n.replace(".csv", ".png")));
        return all.toString();
    }

    private byte[] taken(Path folder, String ending) {
        return browser.until("a file that ends with " + ending, () -> {
            try (Stream<Path> files = Files.list(folder)) {
                Path found = files.filter(f -> f.toString().endsWith(ending))
                        .findFirst()
                        .orElse(null);
                return found == null ? null : Files.readAllBytes(found);
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        });
    }
}
