package yarrowmark.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;

/** What an audience or a camera sees, and the desk of whoever shows it. */
@Order(5)
class StageIT extends AtTheDemo {
    StageIT() {
        super(Demo.CHANGED);
    }

    private String stage() {
        browser.open(program.address() + "write-ups");
        return browser.see("//a[.='Two winters with the Drift 13']").getDomProperty("href") + "/stage";
    }

    @Test
    void theStageShowsRowByRowAndGoesBlank() {
        browser.open(stage());
        browser.see("//*[contains(@class, 'stage')]//h1[.='Two winters with the Drift 13']");
        browser.keys(Keys.ARROW_RIGHT);
        browser.see("//h1[.='Pellow Drift 13']");
        assertThat(shown()).isZero();
        browser.keys(Keys.SPACE);
        browser.until("one row", () -> shown() == 1);
        browser.see("//li[@data-shown='true'][last()]");
        browser.keys(Keys.ARROW_RIGHT);
        browser.until("two rows", () -> shown() == 2);
        browser.keys(Keys.ARROW_LEFT);
        browser.until("one again", () -> shown() == 1);
        // No words smaller than 28 pixels on a screen of 1920 by 1080.
        double smallest = ((Number)
                        browser.js(
                                "return Math.min(...[...document.querySelectorAll('.stage-sheet *')].filter((e) => [...e.childNodes].some((n) => n.nodeType === 3 && n.data.trim())).map((e) => parseFloat(getComputedStyle(e).fontSize) * 1080 / Math.min(window.innerHeight, window.innerWidth * 9 / 16)))"))
                .doubleValue();
        assertThat(smallest).isGreaterThanOrEqualTo(28);
        browser.keys("b");
        browser.until("nothing", () -> browser.driver()
                .findElements(By.cssSelector(".stage-sheet"))
                .isEmpty());
        browser.keys("b");
        browser.see("//h1[.='Pellow Drift 13']");
        browser.keys(Keys.ESCAPE);
        browser.see("//textarea[@aria-label='Title']");
        assertThat(browser.complaints()).isEmpty();
    }

    @Test
    void itsKeysAreSaidUntilTheFirstOneAndNothingUnderItIsReached() {
        String stage = stage();
        browser.js("localStorage.removeItem('yarrowmark.stage-keys')");
        browser.open(stage);
        browser.see("//*[contains(@class, 'stage')]//h1");
        browser.until("the keys", () -> help().equals("true"));
        browser.keys(Keys.ARROW_RIGHT);
        browser.until("no keys any more", () -> help().equals("false"));
        browser.open(stage);
        browser.see("//*[contains(@class, 'stage')]//h1");
        assertThat(help()).as("they are known in this browser").isEqualTo("false");
        browser.keys("?");
        browser.until("whoever asks is told", () -> help().equals("true"));
        for (int i = 0; i < 6; i++) {
            browser.keys(Keys.TAB);
            assertThat((Boolean) browser.js("return document.activeElement.closest('#root') === null"))
                    .isTrue();
        }
        browser.keys(Keys.ESCAPE);
        browser.see("//textarea[@aria-label='Title']").click();
        assertThat((Boolean) browser.js("return document.activeElement.closest('#root') !== null"))
                .isTrue();
        assertThat(browser.complaints()).isEmpty();
    }

    private String help() {
        return (String) browser.js("return document.querySelector('.stage-help').dataset.shown");
    }

    private long shown() {
        return browser.driver()
                .findElements(By.cssSelector(".stage-row[data-shown=true]"))
                .size();
    }

    @Test
    void twoWindowsShowTheSameAndOneHasTheNotes() {
        String stage = stage();
        browser.open(stage.replace("/stage", ""));
        browser.see("(//summary[.='notes for the stage'])[1]").click();
        browser.see("(//textarea[starts-with(@aria-label, 'Notes for the stage')])[1]")
                .sendKeys("Wait for the laugh.");
        browser.until(
                "everything kept",
                () -> browser.see("//*[@role='status']").getText().contains("saved "));
        browser.open(stage);
        browser.see("//h1[.='Two winters with the Drift 13']");
        browser.keys("w");
        browser.see("//button[.='Open the stage']");
        List<String> windows = new ArrayList<>(browser.driver().getWindowHandles());
        assertThat(windows).hasSize(2);
        String desk = browser.driver().getWindowHandle();
        windows.remove(desk);

        browser.press("Next");
        browser.seeText("Wait for the laugh.");
        browser.driver().switchTo().window(windows.get(0));
        browser.see("//h1[.='Pellow Drift 13']");
        browser.keys(Keys.ARROW_RIGHT);
        browser.until("one row", () -> shown() == 1);
        assertThat(browser.text()).as("nobody out there reads the notes").doesNotContain("laugh");
        browser.driver().switchTo().window(desk);
        // Every row has its turn, on pages where there is no room for all.
        browser.until("one of all rows", () -> browser.text().matches("(?s).*\\b1 of 1\\d rows shown.*"));
        browser.press("Blank");
        browser.driver().switchTo().window(windows.get(0));
        browser.until("black", () -> browser.driver()
                .findElements(By.cssSelector(".stage-sheet"))
                .isEmpty());
        // Whoever opens the stage anew finds it as it is.
        browser.open(stage);
        browser.until("still black", () -> !browser.driver()
                .findElements(By.cssSelector(".stage[data-blank=true]"))
                .isEmpty());
        browser.driver().close();
        browser.driver().switchTo().window(desk);
        assertThat(browser.complaints()).isEmpty();
    }

    @Test
    void aClipOnClearPaperIsTransparentWhereNothingStands(@TempDir Path folder) throws IOException {
        browser.cdp("Browser.setDownloadBehavior", Map.of("behavior", "allow", "downloadPath", folder.toString()));
        browser.open(stage());
        browser.see("//h1[.='Two winters with the Drift 13']");
        browser.keys("ppp");
        browser.see("//*[contains(@class, 'stage-clear')]");
        browser.keys("r");
        browser.until(
                "it records", () -> ((String) browser.js("return document.querySelector('.stage-help').textContent"))
                        .contains("ends the recording"));
        browser.keys(Keys.ARROW_RIGHT);
        browser.keys(Keys.ARROW_RIGHT);
        browser.until("a row", () -> shown() == 1);
        // An encoder that has just begun leaves pictures out: a clip of some seconds is what is asked of it.
        double shown = ((Number) browser.js("return performance.now()")).doubleValue();
        browser.until(
                "two seconds of it",
                () -> ((Number) browser.js("return performance.now()")).doubleValue() > shown + 2_000);
        browser.keys("r");
        byte[] clip = browser.until("the clip", () -> {
            try (Stream<Path> files = Files.list(folder)) {
                Path found = files.filter(f -> f.toString().endsWith(".webm"))
                        .findFirst()
                        .orElse(null);
                return found == null ? null : Files.readAllBytes(found);
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        });
        assertThat(browser.complaints()).isEmpty();
        // Our own pages play no videos: a page of nobody's looks at it.
        browser.open("about:blank");
        @SuppressWarnings("unchecked")
        List<Long> seen = (List<Long>) browser.driver()
                .executeAsyncScript(
                        """
            const done = arguments[1];
            const video = document.createElement('video');
            video.muted = true;
            video.src = URL.createObjectURL(new Blob([Uint8Array.from(atob(arguments[0]), (c) => c.charCodeAt(0))], { type: 'video/webm' }));
            video.onerror = () => done([0, 0, 0, 0]);
            video.play();
            video.onended = () => {
                const canvas = document.createElement('canvas');
                canvas.width = video.videoWidth;
                canvas.height = video.videoHeight;
                const context = canvas.getContext('2d');
                context.drawImage(video, 0, 0);
                const dots = context.getImageData(0, 0, canvas.width, canvas.height).data;
                let drawn = 0, clear = 0;
                for (let i = 3; i < dots.length; i += 4) {
                    if (dots[i] > 200) drawn++;
                    if (dots[i] < 10) clear++;
                }
                done([canvas.width, canvas.height, drawn, clear]);
            };""",
                        Base64.getEncoder().encodeToString(clip));
        assertThat(seen.subList(0, 2)).containsExactly(1920L, 1080L);
        assertThat(seen.get(2)).as("dots of the words").isGreaterThan(5_000);
        assertThat(seen.get(3)).as("dots that are clear").isGreaterThan(1_500_000);
    }
}
