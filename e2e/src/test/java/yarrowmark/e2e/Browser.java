package yarrowmark.e2e;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.function.Supplier;
import java.util.logging.Level;
import java.util.logging.Logger;
import org.openqa.selenium.By;
import org.openqa.selenium.JavascriptExecutor;
import org.openqa.selenium.Keys;
import org.openqa.selenium.NoSuchElementException;
import org.openqa.selenium.OutputType;
import org.openqa.selenium.StaleElementReferenceException;
import org.openqa.selenium.WebDriverException;
import org.openqa.selenium.WebElement;
import org.openqa.selenium.chrome.ChromeDriver;
import org.openqa.selenium.chrome.ChromeDriverService;
import org.openqa.selenium.chrome.ChromeOptions;
import org.openqa.selenium.interactions.Actions;
import org.openqa.selenium.logging.LogType;

/** A headless Chromium with a fresh profile. Elements are found by what a person sees; conditions are waited for. */
final class Browser implements UnderTest {
    /** What the driver says of versions of the browser's own protocol concerns nobody who reads the output of tests. */
    private static final Logger QUIET = Logger.getLogger("org.openqa.selenium");

    static {
        QUIET.setLevel(Level.SEVERE);
    }

    private static final Map<Thread, List<Browser>> OPEN = new ConcurrentHashMap<>();

    private final ChromeDriver driver;
    private final Path profile;

    Browser() {
        this(1280, 800);
    }

    /** @param more switches of Chromium */
    Browser(int width, int height, String... more) {
        ChromeOptions options = new ChromeOptions();
        options.setBinary("/usr/bin/chromium");
        try {
            profile = Files.createTempDirectory("yarrowmark-browser");
            options.addArguments(
                    "--headless=new",
                    "--no-sandbox",
                    "--disable-quic",
                    "--no-first-run",
                    "--disable-background-networking",
                    "--disable-component-update",
                    "--disable-sync",
                    "--hide-scrollbars",
                    "--window-size=" + width + "," + height,
                    "--user-data-dir=" + profile);
            options.addArguments(more);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        ChromeDriverService service = new ChromeDriverService.Builder()
                .usingDriverExecutable(new java.io.File("/usr/bin/chromedriver"))
                .build();
        driver = new ChromeDriver(service, options);
        driver.manage().timeouts().scriptTimeout(Patience.LIMIT);
        driver.executeCdpCommand(
                "Emulation.setDeviceMetricsOverride",
                Map.of("width", width, "height", height, "deviceScaleFactor", 1, "mobile", width < 500));
        OPEN.computeIfAbsent(Thread.currentThread(), t -> new CopyOnWriteArrayList<>())
                .add(this);
    }

    /** Those of the test that runs here: each test has one thread. */
    static List<Browser> openInThisThread() {
        return List.copyOf(OPEN.getOrDefault(Thread.currentThread(), List.of()));
    }

    /** Writes down what it shows, where it is, and what its console said. @param beginning of the files' names */
    void keepEvidence(Path beginning) throws IOException {
        try {
            Files.write(Path.of(beginning + ".png"), driver.getScreenshotAs(OutputType.BYTES));
            StringBuilder said =
                    new StringBuilder(driver.getCurrentUrl()).append("\n\n").append(text());
            driver.manage().logs().get(LogType.BROWSER).forEach(line -> said.append("\n")
                    .append(line));
            Files.writeString(Path.of(beginning + ".txt"), said);
        } catch (WebDriverException e) {
            Files.writeString(Path.of(beginning + ".txt"), "It could not be asked any more: " + e.getMessage());
        }
    }

    ChromeDriver driver() {
        return driver;
    }

    @Override
    public Browser open(String address) {
        driver.get(address);
        return this;
    }

    /** Waits until there is an answer that is neither null nor false. */
    @Override
    public <T> T until(String what, Supplier<T> look) {
        return Patience.until(() -> what + " did not come about. The page says:\n" + text(), () -> {
            try {
                return look.get();
            } catch (StaleElementReferenceException | NoSuchElementException e) {
                return null;
            } catch (WebDriverException e) {
                // A page that is loaded anew between finding an element and reading it.
                if (String.valueOf(e.getMessage()).contains("does not belong to the document")) {
                    return null;
                }
                throw e;
            }
        });
    }

    @Override
    public String heading() {
        return driver.findElement(By.tagName("h1")).getText();
    }

    @Override
    public String agent() {
        return (String) js("return navigator.userAgent");
    }

    WebElement see(String xpath) {
        return until("to see " + xpath, () -> driver.findElements(By.xpath(xpath)).stream()
                .filter(WebElement::isDisplayed)
                .findFirst()
                .orElse(null));
    }

    WebElement seeText(String words) {
        return see("//*[contains(normalize-space(.), \"" + words + "\") and not(*[contains(normalize-space(.), \""
                + words + "\")])]");
    }

    WebElement button(String name) {
        return see("//button[starts-with(normalize-space(.), \"" + name + "\") or @aria-label=\"" + name + "\"]");
    }

    @Override
    public void press(String name) {
        until("to press " + name, () -> {
            button(name).click();
            return true;
        });
    }

    @Override
    public void type(String label, String words) {
        WebElement field = see(
                "//label[starts-with(normalize-space(.), \"" + label + "\")]//input | //input[@aria-label=\"" + label
                        + "\"] | //input[@id=//label[starts-with(normalize-space(.), \"" + label + "\")]/@for]");
        field.sendKeys(Keys.chord(Keys.CONTROL, "a"), words);
    }

    /** A control of the sentence: opens it and picks an option. */
    void choose(String control, String option) {
        By button = By.xpath("//button[starts-with(@aria-label, \"" + control + ":\")]");
        By wanted = By.xpath("//*[@role='option'][contains(normalize-space(.), \"" + option + "\")]");
        // A sentence whose words have just changed moves what is in it: a press beside it is made again, as a person
        // would.
        until(option + " among " + control, () -> {
            for (WebElement one : driver.findElements(wanted)) {
                if (one.isDisplayed()) {
                    one.click();
                    return true;
                }
            }
            WebElement opens = driver.findElement(button);
            if (!"true".equals(opens.getDomAttribute("aria-expanded"))) {
                opens.click();
            }
            return false;
        });
    }

    void keys(CharSequence... keys) {
        new Actions(driver).sendKeys(keys).perform();
    }

    /** Holds Ctrl while the key is pressed. */
    void keyWithCtrl(CharSequence key) {
        new Actions(driver)
                .keyDown(Keys.CONTROL)
                .sendKeys(key)
                .keyUp(Keys.CONTROL)
                .perform();
    }

    String text() {
        return (String) js("return document.body.innerText");
    }

    Object js(String code, Object... arguments) {
        return ((JavascriptExecutor) driver).executeScript(code, arguments);
    }

    void cdp(String command, Map<String, Object> parameters) {
        driver.executeCdpCommand(command, parameters);
    }

    /** From the next page on: each time the heading says something new, and the page these words, it is loaded anew a moment later. */
    void reloadOnceUnderEachHeading(String words) {
        cdp(
                "Page.addScriptToEvaluateOnNewDocument",
                Map.of(
                        "source",
                        """
            addEventListener('DOMContentLoaded', () => new MutationObserver(() => {
              const heading = document.querySelector('h1')?.textContent;
              const seen = JSON.parse(sessionStorage.getItem('reloaded') ?? '[]');
              if (!heading || seen.includes(heading) || !document.body.textContent.includes('WORDS')) return;
              sessionStorage.setItem('reloaded', JSON.stringify([...seen, heading]));
              setTimeout(() => location.reload(), 200);
            }).observe(document.body, { childList: true, subtree: true, characterData: true }));"""
                                .replace("WORDS", words)));
    }

    /** What axe finds that somebody could not read or reach; empty where nothing is found. */
    String violations() {
        try {
            js(Files.readString(Path.of("..", "web", "node_modules", "axe-core", "axe.min.js"))
                    + "; window.axe = window.axe ?? axe");
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return (String)
                js(
                        "return axe.run(document).then((r) => r.violations.map((v) => v.id + ': ' + v.nodes.slice(0, 3).map((n) => n.html.slice(0, 200)).join(' ')).join('\\n'))");
    }

    /** What the page's console complains about, the content security policy's complaints among it. */
    List<String> complaints() {
        return driver.manage().logs().get(LogType.BROWSER).getAll().stream()
                .filter(e -> e.getLevel().intValue() >= Level.SEVERE.intValue())
                .map(e -> e.getMessage())
                .toList();
    }

    /** On the bench: asks for a code, also where others wait already, and gives the new one. */
    String newCode() {
        By shown = By.cssSelector("[data-testid=code]");
        WebElement asks = see("//button[starts-with(., 'Make a code') or starts-with(., 'Another code')]");
        List<String> before =
                driver.findElements(shown).stream().map(WebElement::getText).toList();
        asks.click();
        return until("a new code", () -> driver.findElements(shown).stream()
                .map(WebElement::getText)
                .filter(code -> !code.isEmpty() && !before.contains(code))
                .findFirst()
                .orElse(null));
    }

    void signIntoDemo(String address) {
        open(address);
        press("go straight in");
        until("to be signed in", () -> {
            if (!driver.findElements(By.xpath("//nav[@aria-label='Main']")).isEmpty()) {
                return true;
            }
            // On a drive that stands still for seconds the records are; whoever sits here would press once more.
            if (text().contains("out of reach just now")) {
                button("go straight in").click();
            }
            return false;
        });
    }

    @Override
    public void close() {
        OPEN.values().forEach(open -> open.remove(this));
        driver.quit();
        // Many of them fill a small disk.
        try {
            Program.deleteAll(profile);
        } catch (UncheckedIOException e) {
            // One of its processes still ends and writes: that little stays.
        }
    }
}
