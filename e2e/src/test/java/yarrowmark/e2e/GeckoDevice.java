package yarrowmark.e2e;

import java.io.IOException;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.openqa.selenium.bidi.Command;
import org.openqa.selenium.bidi.Connection;
import org.openqa.selenium.json.JsonInput;
import org.openqa.selenium.remote.http.ClientConfig;
import org.openqa.selenium.remote.http.HttpClient;
import org.openqa.selenium.support.ui.FluentWait;

/** A headless browser of the Gecko engine with a fresh profile, spoken to without a driver between: Debian has none. */
final class GeckoDevice extends ScriptedDevice {
    private static final Pattern LISTENS = Pattern.compile("WebDriver BiDi listening on (ws://\\S+)");
    private static final Duration ANSWER = Duration.ofMinutes(2);

    private final Process process;
    private final HttpClient client;
    private final Connection connection;
    private final String context;

    GeckoDevice() throws IOException {
        Path folder = Files.createTempDirectory("yarrowmark-gecko");
        // A round is not to be told what is new, and its window is as good as one that somebody looks at.
        Files.writeString(
                folder.resolve("user.js"),
                """
                user_pref("browser.shell.checkDefaultBrowser", false);
                user_pref("datareporting.policy.dataSubmissionEnabled", false);
                user_pref("app.update.enabled", false);
                user_pref("browser.aboutwelcome.enabled", false);
                user_pref("remote.active-protocols", 1);
                """);
        Path said = folder.resolve("said.txt");
        process = new ProcessBuilder(
                        "firefox-esr",
                        "--headless",
                        "--no-remote",
                        "--profile",
                        folder.toString(),
                        "--remote-debugging-port=0",
                        "--width=1280",
                        "--height=800")
                .redirectErrorStream(true)
                .redirectOutput(said.toFile())
                .start();
        String address = new FluentWait<>(said)
                .withTimeout(ANSWER)
                .withMessage("the browser did not say where it listens")
                .until(file -> {
                    try {
                        Matcher found = LISTENS.matcher(Files.readString(file));
                        return found.find() ? found.group(1) + "/session" : null;
                    } catch (IOException e) {
                        return null;
                    }
                });
        client = HttpClient.Factory.createDefault()
                .createClient(ClientConfig.defaultConfig().baseUri(URI.create(address.replaceFirst("^ws", "http"))));
        connection = new Connection(client, address);
        send("session.new", Map.of("capabilities", Map.of("alwaysMatch", Map.of("acceptInsecureCerts", true))));
        List<Map<String, Object>> contexts =
                list(send("browsingContext.getTree", Map.of()).get("contexts"));
        context = (String) contexts.get(0).get("context");
    }

    @SuppressWarnings("unchecked")
    private static List<Map<String, Object>> list(Object value) {
        return (List<Map<String, Object>>) value;
    }

    private Map<String, Object> send(String method, Map<String, Object> parameters) {
        return connection.sendAndWait(
                new Command<Map<String, Object>>(method, parameters, (JsonInput input) -> input.read(Map.class)),
                ANSWER);
    }

    @Override
    public GeckoDevice open(String address) {
        send("browsingContext.navigate", Map.of("context", context, "url", address, "wait", "complete"));
        return this;
    }

    @Override
    @SuppressWarnings("unchecked")
    Object js(String body) {
        Map<String, Object> answer = send(
                "script.callFunction",
                Map.of(
                        "functionDeclaration",
                        "async () => {" + body + "}",
                        "awaitPromise",
                        true,
                        "target",
                        Map.of("context", context)));
        if (!"success".equals(answer.get("type"))) {
            throw new IllegalStateException("the page refused: " + answer.get("exceptionDetails"));
        }
        return ((Map<String, Object>) answer.get("result")).get("value");
    }

    @Override
    public void close() {
        connection.close();
        client.close();
        process.destroy();
    }
}
