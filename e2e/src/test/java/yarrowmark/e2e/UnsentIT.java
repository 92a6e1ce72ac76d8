package yarrowmark.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.TestInstance;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.openqa.selenium.WindowType;

/**
 * Nothing that people type is lost: seeded sequences of typing in two tabs by two people while the network goes, pages are
 * loaded anew, tabs are closed, people sign out, and the server is killed. The model of the same, with five hundred sequences
 * and another shelf at the address, is a test of the page's own.
 */
@Tag("long")
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
class UnsentIT {
    private static final int STEPS = 14;
    private static final List<String> PEOPLE = List.of("wren", "reed");

    private Program program;
    private Device.Http owner;

    @BeforeAll
    void start() throws Exception {
        program = Program.start("start", "unsent");
        owner = Device.owner(program.address());
        Typing.join(owner, program.address(), "reed");
    }

    @AfterAll
    void end() {
        program.close();
    }

    private enum View {
        WRITE_UP,
        SHEET,
        FORM
    }

    /** What was typed, by whom. @param entered whether it is on its way to the server */
    private record Typed(String person, String what, boolean entered) {}

    private void show(Browser browser, View view, Typing.Place place) {
        switch (view) {
            case WRITE_UP -> Typing.openWriteUp(browser, program.address(), place);
            case SHEET -> Typing.openSheet(browser, program.address(), place);
            case FORM -> Typing.openForm(browser, program.address());
        }
    }

    private static void offline(Browser browser, boolean offline) {
        browser.driver()
                .executeCdpCommand(
                        "Network.emulateNetworkConditions",
                        Map.of("offline", offline, "latency", 0, "downloadThroughput", -1, "uploadThroughput", -1));
    }

    @ParameterizedTest
    @ValueSource(
            ints = {
                1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14, 15, 16, 17, 18, 19, 20, 21, 22, 23, 24, 25, 26, 27, 28,
                29, 30
            })
    void aSequenceLosesNothing(int seed) throws Exception {
        Random random = new Random(seed);
        Typing.Place place = Typing.place(owner, "seed " + seed);
        List<Typed> sentences = new ArrayList<>();
        Map<Integer, Typed> scores = new HashMap<>();
        // Of each tab the last one: what is typed over is not wanted any more.
        Map<String, Typed> forms = new HashMap<>();
        try (Browser browser = new Browser()) {
            browser.driver().executeCdpCommand("Network.enable", Map.of());
            String person = PEOPLE.get(0);
            Typing.signIn(browser, program.address(), person);
            View view = View.WRITE_UP;
            show(browser, view, place);
            int run = 0;
            for (int step = 0; step < STEPS; step++) {
                String mark = "s" + seed + "n" + step + "x";
                double what = random.nextDouble();
                if (what < 0.55) {
                    switch (view) {
                        case WRITE_UP -> {
                            Typing.write(browser, random.nextInt(2), mark);
                            sentences.add(new Typed(person, mark, true));
                        }
                        case SHEET -> {
                            boolean entered = random.nextDouble() < 0.7;
                            String value = (100 + run) + ".5";
                            Typing.score(browser, ++run, value, entered);
                            scores.put(run, new Typed(person, value, entered));
                        }
                        case FORM -> {
                            Typing.form(browser, mark);
                            forms.put(browser.driver().getWindowHandle() + person, new Typed(person, mark, false));
                        }
                    }
                } else if (what < 0.66) {
                    offline(browser, false);
                    view = View.values()[random.nextInt(3)];
                    show(browser, view, place);
                } else if (what < 0.74) {
                    offline(browser, true);
                } else if (what < 0.82) {
                    offline(browser, false);
                    browser.driver().navigate().refresh();
                    show(browser, view, place);
                } else if (what < 0.9) {
                    offline(browser, false);
                    String before = browser.driver().getWindowHandle();
                    browser.driver().switchTo().newWindow(WindowType.TAB);
                    browser.driver().executeCdpCommand("Network.enable", Map.of());
                    if (random.nextBoolean()) {
                        String next = browser.driver().getWindowHandle();
                        browser.driver().switchTo().window(before).close();
                        browser.driver().switchTo().window(next);
                    }
                    show(browser, view, place);
                } else if (what < 0.95) {
                    offline(browser, false);
                    person = PEOPLE.get(random.nextInt(2));
                    Typing.signIn(browser, program.address(), person);
                    show(browser, view, place);
                } else {
                    program.kill();
                    program.startAgain();
                }
            }
            Map<String, String> kept = new HashMap<>();
            offline(browser, false);
            for (String whose : PEOPLE) {
                Typing.signIn(browser, program.address(), whose);
                Typing.openWriteUp(browser, program.address(), place);
                browser.until("texts to be stored, or held for a decision", () -> !browser.text()
                        .matches("(?s).*(Saving|Not saved yet).*"));
                Typing.openSheet(browser, program.address(), place);
                browser.until("scores to be sent", () -> !Typing.kept(browser).contains("\"waiting\""));
                kept.put(whose, Typing.kept(browser));
            }
            String texts = Typing.texts(owner, place);
            for (Typed sentence : sentences) {
                assertThat(texts + kept.get(sentence.person()))
                        .as("seed " + seed + ": a sentence of " + sentence.person())
                        .contains(sentence.what());
                for (String other : PEOPLE) {
                    if (!other.equals(sentence.person()) && !texts.contains(sentence.what())) {
                        assertThat(kept.get(other)).as("is not shown to others").doesNotContain(sentence.what());
                    }
                }
            }
            Map<Integer, Double> stored = Typing.scores(owner, place);
            scores.forEach((number, score) -> {
                if (score.entered()) {
                    assertThat(stored)
                            .as("seed " + seed + ": run " + number)
                            .containsEntry(number, Double.valueOf(score.what()));
                } else if (!stored.containsKey(number)) {
                    assertThat(kept.get(score.person()))
                            .as("seed " + seed + ": run " + number + ", not entered")
                            .contains("\"" + score.what() + "\"");
                }
            });
            assertThat(stored.keySet()).as("nothing that nobody typed").isSubsetOf(scores.keySet());
            forms.values().forEach(form -> assertThat(kept.get(form.person()))
                    .as("seed " + seed + ": a form of " + form.person())
                    .contains(form.what()));
        }
    }
}
