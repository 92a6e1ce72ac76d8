package yarrowmark.e2e;

import java.io.IOException;
import java.net.ServerSocket;
import java.net.URI;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import org.openqa.selenium.MutableCapabilities;
import org.openqa.selenium.SessionNotCreatedException;
import org.openqa.selenium.WebDriverException;
import org.openqa.selenium.remote.RemoteWebDriver;
import org.openqa.selenium.support.ui.FluentWait;

/** A browser of the WebKit engine with nothing kept from before, on a display that nobody sees. */
final class WebKitDevice extends ScriptedDevice {
    private static final Path LIBRARIES = Path.of("/usr/lib/x86_64-linux-gnu");
    private static final Duration STARTS = Duration.ofMinutes(1);

    private final Process display;
    private final Process driverProcess;
    private final RemoteWebDriver driver;

    WebKitDevice() throws IOException {
        Path number = Files.createTempFile("yarrowmark-display", ".txt");
        display = new ProcessBuilder("Xvfb", "-displayfd", "1", "-screen", "0", "1280x900x24", "-nolisten", "tcp")
                .redirectOutput(number.toFile())
                .redirectError(ProcessBuilder.Redirect.DISCARD)
                .start();
        String shown = new FluentWait<>(number)
                .withTimeout(STARTS)
                .withMessage("Xvfb did not start")
                .until(file -> {
                    try {
                        String words = Files.readString(file).strip();
                        return words.isEmpty() ? null : words;
                    } catch (IOException e) {
                        return null;
                    }
                });
        int port;
        try (ServerSocket free = new ServerSocket(0)) {
            port = free.getLocalPort();
        }
        ProcessBuilder starting = new ProcessBuilder("WebKitWebDriver", "--port=" + port)
                .redirectErrorStream(true)
                .redirectOutput(ProcessBuilder.Redirect.DISCARD);
        starting.environment().put("DISPLAY", ":" + shown);
        // Without a graphics processor, drawing goes by the processor; its sandbox needs rights that a container has
        // not.
        starting.environment().put("WEBKIT_DISABLE_SANDBOX_THIS_IS_DANGEROUS", "1");
        driverProcess = starting.start();
        MutableCapabilities wanted = new MutableCapabilities(Map.of(
                "browserName",
                "MiniBrowser",
                "acceptInsecureCerts",
                true,
                "webkitgtk:browserOptions",
                Map.of("binary", binary().toString(), "args", List.of("--automation"))));
        driver = new FluentWait<>(port)
                .withTimeout(STARTS)
                .ignoring(SessionNotCreatedException.class)
                .ignoring(WebDriverException.class)
                .until(p -> new RemoteWebDriver(url("http://127.0.0.1:" + p), wanted, false));
        driver.manage().timeouts().scriptTimeout(Duration.ofMinutes(4));
    }

    private static java.net.URL url(String address) {
        try {
            return URI.create(address).toURL();
        } catch (java.net.MalformedURLException e) {
            throw new IllegalArgumentException(e);
        }
    }

    private static Path binary() throws IOException {
        try (DirectoryStream<Path> versions = Files.newDirectoryStream(LIBRARIES, "webkit2gtk-*")) {
            for (Path version : versions) {
                if (Files.isExecutable(version.resolve("MiniBrowser"))) {
                    return version.resolve("MiniBrowser");
                }
            }
        }
        throw new IOException("there is no MiniBrowser below " + LIBRARIES);
    }

    @Override
    public WebKitDevice open(String address) {
        driver.get(address);
        return this;
    }

    @Override
    Object js(String body) {
        return driver.executeAsyncScript("const done = arguments[arguments.length - 1]; (async () => {" + body
                + "})().then(done, (e) => done(String(e)));");
    }

    @Override
    public void close() {
        try {
            driver.quit();
        } catch (WebDriverException e) {
            // Its page is gone already.
        } finally {
            driverProcess.destroy();
            display.destroy();
        }
    }
}
