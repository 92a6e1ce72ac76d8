package yarrowmark.e2e;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.openqa.selenium.OutputType;

/** Makes docs/screenshots from the demo shelf, at 1280x800. Run by bin/screenshots. */
public final class Screenshots {
    private static Path target = Path.of("..", "docs", "screenshots");

    private Screenshots() {}

    /** @param arguments the folder, where it is another than docs/screenshots; at the smallest size, one picture */
    public static void main(String[] arguments) throws IOException {
        if (arguments.length > 0) {
            target = Path.of(arguments[0]);
        }
        Files.createDirectories(target);
        try (Program program = Program.start("demo", "screenshots");
                Browser reviewer = new Browser();
                Browser device = new Browser(390, 844)) {
            reviewer.signIntoDemo(program.address());
            reviewer.open(program.address() + "standings");
            reviewer.see("//*[@role='row'][@data-line='7']");
            for (int row : new int[] {4, 7, 9}) {
                reviewer.see("//*[@role='row'][@data-line='" + row + "']/*[1]").click();
                reviewer.keys(Keys.ENTER);
            }
            reviewer.until(
                    "three on the table",
                    () -> reviewer.driver()
                                    .findElements(By.cssSelector("footer [data-base]"))
                                    .size()
                            == 3);
            reviewer.keys("3");
            reviewer.keys("b");
            reviewer.keys("3");
            reviewer.js(
                    "document.activeElement.blur(); document.querySelector('[role=rowgroup].overflow-y-auto').scrollTop = 0");
            take(reviewer, "standings", () -> reviewer.see("//footer//*[@data-base='true']"));
            if (Boolean.getBoolean("yarrowmark.smallest")) {
                return;
            }
            standings(program, reviewer);
            reviewer.open(program.address() + "shelf");
            take(reviewer, "shelf", () -> reviewer.seeText("Dunlin Sanderling"));
            reviewer.seeText("Quenby Folio 14").click();
            take(reviewer, "model", () -> reviewer.see("//h1[.='Quenby Folio 14']"));
            spreadsheet(program, reviewer);
            reviewer.open(program.address() + "suites");
            reviewer.see("//h2//a[.='Tidegauge Storage 2.1']").click();
            reviewer.press("Reading rule");
            reviewer.see("//textarea")
                    .sendKeys(
                            "Sequential read: 2101.4 MB/s\nSequential write: 1408.2 MB/s\nRandom write, 4 KiB: 188.0 MB/s\n");
            reviewer.js(
                    "const t = document.querySelector('textarea'); const i = t.value.indexOf('2101.4'); t.focus(); t.setSelectionRange(i, i + 6)");
            reviewer.press("Read the marked number");
            take(reviewer, "suite", () -> reviewer.seeText("Reads 2"));
            reviewer.open(program.address() + "plans?hours=5");
            take(reviewer, "plans", () -> reviewer.seeText("clear pairs of"));
            scores(program, reviewer);
            reviewer.open(program.address() + "ledger");
            take(reviewer, "ledger", () -> reviewer.see("//button[@data-line]"));
            bench(program, reviewer, device);
            compare(program, reviewer);
            writeUp(program, reviewer);
            reviewer.open(program.address() + "today");
            take(reviewer, "today", () -> reviewer.seeText("numbers agree"));
        }
    }

    /** Why a place, and best value. */
    private static void spreadsheet(Program program, Browser reviewer) throws IOException {
        Path sheet = Files.writeString(
                Files.createTempDirectory("yarrowmark-sheet").resolve("minis-2026.csv"),
                """
                Device;Tested;Price;CPU;RAM;Export;Archive (2x);;Harbour avg;1%;Average
                Ostler Cob mini;12.03.26;799 €;Corvane 7;16 GB;58;96,2;95,8;52,6;31;66,72
                Ostler Fell;14.03.26;379 €;Corvane 3;8 GB;1:12;141,0;139,5;24,1;12;77,72
                Tarn Nook 2;20.03.26;449 €;Brae 5;16;crash on export;118,9;120,2;38,8;22;–
                Tarn Nook 2 *;21.03.26;449 €;Brae 5;16;66;112,4;113,0;41,7;25;82
                Quenby Wren;02.04.26;629 €;Thessaly 5;32 GB;61;101,1;n/a;47,0;29;59,52
                Larkspur Peg;03.04.26;549 €;Corvane 5;16 GB;64;109,3;108,8;DNF;–;94,03
                Pellow Spar;09.04.26;119 €;Brae 1c;4 GB;148;311,5;309,9;9,4;4;156,56

                * with power limit raised to 54 W
                """);
        reviewer.open(program.address() + "ledger/import");
        reviewer.see("//h1[.='Import']");
        reviewer.driver().findElement(By.cssSelector("input[type=file]")).sendKeys(sheet.toString());
        take(reviewer, "spreadsheet", () -> reviewer.see("//h2[.='Checked against the sheet']"));
    }

    private static void standings(Program program, Browser reviewer) throws IOException {
        reviewer.open(program.address() + "standings");
        reviewer.see("//*[@role='row'][@data-line='6']/*[1]").click();
        reviewer.keys("w");
        take(reviewer, "standings-why", () -> reviewer.seeText("Strong in"));
        reviewer.open(program.address() + "standings?form=against");
        take(
                reviewer,
                "standings-best-value",
                () -> reviewer.see("//*[@role='group'][starts-with(@aria-label, 'Index against price')]"));
    }

    /** The table's three, and a device's own before and after. */
    private static void compare(Program program, Browser reviewer) throws IOException {
        reviewer.open(program.address() + "compare");
        reviewer.see("//*[@role='columnheader']//button[@aria-pressed='true']");
        reviewer.open(program.address() + "shelf");
        // The table's strip has the name as well.
        reviewer.see("//main//a[.='Quenby Folio 14']").click();
        reviewer.see("//a[starts-with(., 'firmware 1.11')]").click();
        reviewer.see("//a[.='its scores before and after']").click();
        take(reviewer, "compare", () -> reviewer.see("//h2[.='Overall']"));
        reviewer.open(program.address() + "trends");
        reviewer.choose("Model", "Ostler Cob mini");
        reviewer.choose("Along", "kernel");
        // What was there before stays until the other is.
        take(reviewer, "trends", () -> reviewer.seeText("nothing but kernel changed"));
        reviewer.open(program.address() + "standings?classes=%5B%22LAPTOP%22%5D");
        reviewer.see("//*[@role='row'][@data-line][contains(., 'Pellow Drift 13')]/*[1]")
                .click();
        reviewer.keys("w");
        reviewer.see("//a[.='its report card']").click();
        take(reviewer, "report-card", () -> reviewer.seeText("Best at"));
    }

    /** Where it is written, and on the stage. */
    private static void writeUp(Program program, Browser reviewer) throws IOException {
        reviewer.open(program.address() + "write-ups");
        reviewer.see("//a[.='Two winters with the Drift 13']").click();
        take(reviewer, "write-up", () -> reviewer.seeText("9 numbers"));
        String address = reviewer.driver().getCurrentUrl();
        reviewer.open(address + "/stage");
        reviewer.see("//*[contains(@class, 'stage')]//h1");
        // Past the ratios, to the bars, all but the first of them shown.
        reviewer.keys("o", "o", Keys.ARROW_RIGHT);
        // A key that is pressed before there is anything to show goes nowhere.
        reviewer.seeText("right is better");
        // The ratios take more than one page; a key that is pressed while the bars still come would go past them.
        reviewer.until("the bars", () -> {
            String page = reviewer.driver().getPageSource();
            boolean there = page.contains(">Report export</h1>");
            if (!there && page.contains("stage-title")) {
                reviewer.keys(Keys.ARROW_RIGHT);
            }
            return there;
        });
        reviewer.keys("o");
        for (int row = 0; row < 6; row++) {
            reviewer.keys(Keys.ARROW_RIGHT);
        }
        take(reviewer, "stage", () -> reviewer.seeText("6 of 6 shown"));
        reviewer.keys(Keys.ESCAPE);
        reviewer.open(program.address() + "w");
        take(reviewer, "front-page", () -> reviewer.see("//h2/a[.='The Cob mini, kernel by kernel']"));
    }

    private static void scores(Program program, Browser reviewer) throws IOException {
        reviewer.open(program.address() + "shelf?q=drift%2013");
        reviewer.see("//a[.='Pellow Drift 13']").click();
        reviewer.see("//h1[.='Pellow Drift 13']");
        reviewer.keys(Keys.ARROW_DOWN, Keys.ENTER);
        reviewer.see("//h2[.='This configuration']");
        reviewer.keys("s");
        reviewer.see("//legend//label[contains(., 'Kelpline Desk')]//input").click();
        reviewer.see("//legend//label[contains(., 'Tidegauge Storage')]//input").click();
        reviewer.press("Start the session");
        reviewer.see("//*[@data-place='active']");
        for (String typed :
                List.of("1m34.2", "95.1", "94.8", "61", "n/a crashed on export", "62", "2 084", "2 101", "210.4")) {
            reviewer.keys(typed);
            if (!typed.equals("210.4")) {
                reviewer.keys(Keys.ENTER);
            }
        }
        take(reviewer, "scores", () -> reviewer.seeText("A decimal point?"));
        reviewer.keys(Keys.ESCAPE);
    }

    private static void bench(Program program, Browser reviewer, Browser device) throws IOException {
        // The device is an invented one, in its browser's words too.
        device.cdp(
                "Emulation.setUserAgentOverride",
                Map.of(
                        "userAgent",
                        "Curlew/141.2 (Fenland)",
                        "userAgentMetadata",
                        Map.of(
                                "brands",
                                List.of(Map.of("brand", "Curlew", "version", "141")),
                                "fullVersionList",
                                List.of(Map.of("brand", "Curlew", "version", "141.2.19")),
                                "platform",
                                "Fenland",
                                "platformVersion",
                                "12.4",
                                "architecture",
                                "",
                                "model",
                                "",
                                "mobile",
                                false)));
        device.cdp(
                "Page.addScriptToEvaluateOnNewDocument",
                Map.of(
                        "source",
                        "WebGL2RenderingContext.prototype.getParameter = () => 'Brae tile 1s'; Object.defineProperty(screen, 'width', {value: 1920}); Object.defineProperty(screen, 'height', {value: 1200})"));
        reviewer.open(program.address() + "bench?runs=3&timed=500&pause=2000");
        reviewer.press("Make a code");
        String code = reviewer.see("//*[@data-testid='code']").getText();
        device.open(program.address() + "j");
        device.see("//input[@id='code']");
        device.type("Code", code);
        device.press("Join");
        device.see("//li//button[contains(., 'Larkspur Slate 8')]").click();
        device.press("Start first round");
        reviewer.until(
                "some runs",
                () -> reviewer.driver()
                                .findElements(By.cssSelector("article svg[aria-label*=': ok']"))
                                .size()
                        >= 7);
        reviewer.press("Make a code");
        take(device, "device-running", () -> device.see("//button[.='Stop']"));
        take(reviewer, "bench", () -> reviewer.see("//*[@data-testid='code']"));
    }

    private static void take(Browser browser, String name, Runnable ready) throws IOException {
        ready.run();
        browser.until("fonts", () -> Boolean.TRUE.equals(browser.js("return document.fonts.status === 'loaded'")));
        // A bar that is still growing shows another value than the one beside it.
        browser.until(
                "everything at rest",
                () -> Boolean.TRUE.equals(
                        browser.js(
                                "return document.getAnimations().every((a) => a.playState !== 'running' || a.effect.getComputedTiming().endTime === Infinity)")));
        Files.write(target.resolve(name + ".png"), browser.driver().getScreenshotAs(OutputType.BYTES));
        System.out.println("docs/screenshots/" + name + ".png");
    }
}
