package yarrowmark.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.Keys;

/**
 * Every view, and what opens in it: at five widths, from a narrow phone to a screen at 200 %, nothing sticks out or is
 * squeezed away; and a check of accessibility finds nothing, on light paper and on dark.
 */
@Order(3)
class ReadableIT extends AtTheDemo {
    /** An address, and keys that open something there. */
    private record State(String path, CharSequence... keys) {}

    private static final List<State> STATES = List.of(
            new State("today"),
            new State("standings"),
            new State("standings", "?"),
            new State("standings?form=list"),
            new State("standings?form=charts"),
            new State("shelf/configurations/1/card"),
            new State("standings?form=against"),
            new State("standings?form=lines"),
            new State("standings?weigh=true"),
            new State("standings?why=1"),
            new State("shelf"),
            new State("shelf", "n"),
            new State("shelf", "/"),
            new State("shelf/models/1"),
            new State("shelf/configurations/1"),
            new State("shelf/configure?unit=1"),
            new State("shelf/difference?ids=[1,2,3]"),
            new State("shelf/checklists"),
            new State("suites"),
            new State("suites", "n"),
            new State("suites/1"),
            new State("plans?make=true"),
            new State("bench"),
            new State("bench/by-hand?configuration=1"),
            new State("ledger"),
            new State("ledger?reading=1"),
            new State("ledger/import"),
            new State("compare"),
            new State("compare?ids=[1,2]"),
            new State("compare?ids=[1,2,3,4,5]"),
            new State("compare?ids=[1,2,3,4]&factors=true"),
            new State("trends"),
            new State("trends?model=7"),
            new State("trends?model=7&form=panels"),
            new State("trends?model=7&form=table"),
            new State("write-ups"),
            new State("write-ups/1"),
            new State("write-ups/2"),
            new State("people/interface"),
            new State("kept"),
            new State("people"),
            new State("people/log"),
            new State("nothing/here"));

    ReadableIT() {
        super(Demo.READ);
    }

    private void show(State state) {
        // Within the page: it is loaded once, as for somebody who walks through it.
        browser.js(
                """
                document.body.dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape', bubbles: true }));
                history.pushState({}, '', arguments[0]);
                dispatchEvent(new PopStateEvent('popstate'));""",
                "/" + state.path());
        settled(state.path());
        if (state.keys().length > 0) {
            browser.js("document.activeElement?.blur()");
            browser.keys(state.keys());
            settled(state.path());
        }
    }

    private void settled(String what) {
        browser.until(
                what + " is there",
                () -> (Boolean)
                        browser.js(
                                """
                        return document.querySelector('h1') !== null
                            && ![...document.querySelectorAll('[role=status]')].some((e) => e.textContent.startsWith('Fetching'));"""));
        browser.js("return new Promise((r) => requestAnimationFrame(() => requestAnimationFrame(r)))");
    }

    private void width(int width, int height) {
        browser.driver()
                .executeCdpCommand(
                        "Emulation.setDeviceMetricsOverride",
                        Map.of("width", width, "height", height, "deviceScaleFactor", 1, "mobile", false));
        browser.js("return new Promise((r) => requestAnimationFrame(() => requestAnimationFrame(r)))");
    }

    @Test
    void everythingCanBeReadAtEveryWidth() throws IOException {
        String check = resource("readable.js");
        List<String> found = new ArrayList<>();
        try {
            for (State state : STATES) {
                width(1280, 800);
                show(state);
                for (int width : new int[] {1024, 768, 640, 390, 320}) {
                    width(width, width < 600 ? 844 : 800);
                    String trouble = (String) browser.js(check);
                    if (!trouble.isEmpty()) {
                        found.add(state.path() + " " + List.of(state.keys()) + " at " + width + " px: " + trouble);
                    }
                }
            }
        } finally {
            width(1280, 800);
        }
        assertThat(found).isEmpty();
    }

    @Test
    void accessibilityIsWithoutViolationOnLightPaperAndOnDark() throws IOException {
        browser.open(program.address() + "standings");
        settled("standings");
        browser.js(Files.readString(Path.of("..", "web", "node_modules", "axe-core", "axe.min.js"))
                + "; window.axe = window.axe ?? axe");
        List<String> found = new ArrayList<>();
        for (State state : STATES) {
            show(state);
            for (String theme : List.of("light", "dark")) {
                browser.js("document.documentElement.dataset.theme = arguments[0]", theme);
                String trouble = (String) browser.js(
                        """
                        return axe.run(document, arguments[0] === 'dark' ? { runOnly: ['color-contrast'] } : {}).then((r) =>
                          r.violations.map((v) => v.id + ': ' + v.nodes.slice(0, 3).map((n) => n.html.slice(0, 200)
                            + ' (' + (n.any[0] ?? n.all[0] ?? n.none[0])?.message + ')').join('\\n  ')).join('\\n'));""",
                        theme);
                if (!trouble.isEmpty()) {
                    found.add(state.path() + " " + List.of(state.keys()) + " on " + theme + " paper: " + trouble);
                }
            }
        }
        assertThat(found).isEmpty();
    }

    /** The page on a device: joining, and saying what it is, by finger on a phone. */
    @Test
    void theDevicePageIsReadableToo() throws IOException {
        browser.open(program.address() + "bench");
        String code = browser.newCode();
        try (Browser device = new Browser()) {
            device.cdp(
                    "Emulation.setDeviceMetricsOverride",
                    Map.of("width", 390, "height", 844, "deviceScaleFactor", 1, "mobile", true));
            device.open(program.address() + "j");
            device.see("//input[@id='code']");
            assertThat(device.violations()).isEmpty();
            device.type("Code", code);
            device.press("Join");
            device.see("//li//button[contains(., 'Quenby Folio 14')]").click();
            assertThat(device.violations()).isEmpty();
            assertThat((Boolean) device.js("return document.documentElement.scrollWidth <= window.innerWidth + 1"))
                    .isTrue();
        }
    }

    /** Whoever looks for a view by the names of tabs finds it. */
    @Test
    void pagesAreNamedAfterTheirViewAndObject() {
        show(new State("shelf/models/1"));
        String model = browser.see("//h1").getText();
        assertThat(browser.driver().getTitle()).isEqualTo(model + " · Yarrowmark");
        show(new State("nothing/here"));
        assertThat(browser.driver().getTitle()).isEqualTo("Not here · Yarrowmark");
    }

    /** A panel that was opened from a row gives the focus back to the row. */
    @Test
    void theFocusReturnsToTheRowWhenAPanelCloses() {
        show(new State("standings"));
        browser.js("document.activeElement?.blur()");
        browser.keys(Keys.ARROW_DOWN, Keys.ARROW_DOWN);
        browser.see("//*[@role='row'][@data-line='2'][@tabindex='0']");
        browser.keys("w");
        browser.see("//*[@role='dialog']");
        browser.keys(Keys.ESCAPE);
        browser.until("the row has the focus", () ->
                (Boolean) browser.js("return document.activeElement?.getAttribute('data-line') === '2'"));
        show(new State("shelf"));
        browser.js("document.activeElement?.blur()");
        browser.keys(Keys.ARROW_DOWN, Keys.ARROW_DOWN);
        browser.until(
                "the second row has the focus",
                () -> (Boolean)
                        browser.js(
                                "return document.activeElement?.tagName === 'TR' && document.activeElement.dataset.activeRow === 'true'"));
        browser.keys("/");
        browser.see("//*[@role='dialog']");
        browser.keys(Keys.ESCAPE);
        browser.until(
                "the row has it again", () -> (Boolean) browser.js("return document.activeElement?.tagName === 'TR'"));
    }

    /** A list that draws only what is on the screen draws everything for paper. */
    @Test
    void paperHasEveryRow() {
        show(new State("standings"));
        long rows = (Long) browser.js("return Number(document.querySelector('[role=table]').ariaRowCount) - 1");
        long shown = (Long) browser.js("return document.querySelectorAll('[data-line]').length");
        browser.js("dispatchEvent(new Event('beforeprint'))");
        long printed = (Long) browser.js("return document.querySelectorAll('[role=row]').length - 1");
        browser.js("dispatchEvent(new Event('afterprint'))");
        assertThat(shown).as("on the screen").isLessThan(rows);
        assertThat(printed).as("on paper").isEqualTo(rows);
        assertThat((Long) browser.js("return document.querySelectorAll('[data-line]').length"))
                .isLessThan(rows);
    }

    /** What is cut off on the screen takes another line on paper; values that are edited by a click stay. */
    @Test
    void onPaperNoWordsLieOverOthersAndNothingIsMissing() {
        String over =
                """
                return [...document.querySelectorAll('main [role=cell], main [role=columnheader], main td, main th')]
                  .filter((e) => e.checkVisibility() && e.scrollWidth > e.clientWidth + 1 && getComputedStyle(e).display !== 'inline' && !e.closest('.sr-only'))
                  .map((e) => e.textContent.slice(0, 40)).join(', ');""";
        browser.cdp("Emulation.setEmulatedMedia", Map.of("media", "print"));
        try {
            for (String path : List.of("standings", "ledger", "compare", "trends?model=7")) {
                width(730, 1060);
                show(new State(path));
                browser.js("dispatchEvent(new Event('beforeprint'))");
                assertThat((String) browser.js(over)).as(path).isEmpty();
                assertThat(
                                (Boolean)
                                        browser.js(
                                                "return document.querySelector('main').scrollWidth <= document.querySelector('main').clientWidth + 1"))
                        .as("%s fits its sheet", path)
                        .isTrue();
            }
            show(new State("shelf/models/7"));
            assertThat(browser.text()).as("what a model is").contains("EUR");
            assertThat((Boolean) browser.js("return document.querySelector('main form')?.checkVisibility() ?? false"))
                    .as("forms are not for paper")
                    .isFalse();
        } finally {
            browser.cdp("Emulation.setEmulatedMedia", Map.of("media", ""));
            browser.js("dispatchEvent(new Event('afterprint'))");
            width(1280, 800);
        }
    }

    /** One that finds no room on the table is refused in words, not in silence. */
    @Test
    void aNinthOnTheTableIsRefusedInWords() {
        show(new State("standings"));
        try {
            for (int i = 0; i < 9; i++) {
                browser.see("//*[@role='row'][@data-line='" + i + "']//button[@aria-pressed='false']")
                        .click();
            }
            browser.seeText("The table holds eight. Remove one first.");
            assertThat(browser.driver().findElements(org.openqa.selenium.By.cssSelector("footer [data-base]")))
                    .hasSize(8);
        } finally {
            browser.js("localStorage.removeItem('yarrowmark.table')");
            browser.open(program.address() + "standings");
        }
    }

    private static String resource(String name) throws IOException {
        try (InputStream in = ReadableIT.class.getResourceAsStream(name)) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
    }
}
