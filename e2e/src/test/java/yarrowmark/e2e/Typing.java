package yarrowmark.e2e;

import java.io.IOException;
import java.util.List;
import java.util.Map;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.openqa.selenium.json.Json;

/** Somebody who types, and never mind what happens to the program meanwhile: a text, the scores of a session, a form. */
final class Typing {
    static final int PLACES = 30;
    private static final Json JSON = new Json();
    private static final String PASSWORD = "a long password";

    /** Where it is typed. @param test of the session */
    record Place(long writeUp, List<Long> pieces, long session, long test) {}

    private Typing() {}

    /** A write-up with two empty texts, and a session with places for the runs of one test. */
    @SuppressWarnings("unchecked")
    static Place place(Device.Http owner, String name) throws IOException, InterruptedException {
        Map<String, Object> text = Map.of("kind", "TEXT", "body", Map.of("text", "It begins."));
        Map<String, Object> page = owner.ask(
                "POST",
                "api/write-ups",
                JSON.toJson(Map.of("title", "Of " + name, "models", List.of(), "pieces", List.of(text, text))));
        Map<String, Object> list =
                Map.of("name", "Suite of " + name, "version", "1", "group", "PROCESSOR", "text", "Ferry, s, less");
        // The answer is a list of one number.
        long test = Long.parseLong(owner.send("POST", "api/suites", JSON.toJson(list), Map.of())
                .body()
                .replaceAll("\\D", ""));
        Map<String, Object> model = owner.ask(
                "POST",
                "api/models",
                JSON.toJson(Map.of("maker", "Ostler", "name", "Model of " + name, "deviceClass", "LAPTOP")));
        Map<String, Object> unit = owner.ask(
                "POST",
                "api/models/" + number((Map<String, Object>) model.get("model"), "id") + "/units",
                JSON.toJson(Map.of("label", "A")));
        long unitId = ((List<Map<String, Object>>) unit.get("units"))
                .stream().mapToLong(u -> number(u, "id")).findFirst().orElseThrow();
        Map<String, Object> configuration =
                owner.ask("POST", "api/units/" + unitId + "/configurations", JSON.toJson(Map.of("facts", List.of())));
        Map<String, Object> sheet = owner.ask(
                "POST",
                "api/sessions",
                JSON.toJson(Map.of(
                        "configurationId",
                        number((Map<String, Object>) configuration.get("configuration"), "id"),
                        "name",
                        "By hand",
                        "testIds",
                        List.of(test),
                        "runs",
                        PLACES)));
        return new Place(
                number((Map<String, Object>) page.get("writeUp"), "id"),
                ((List<Map<String, Object>>) page.get("pieces"))
                        .stream().map(p -> number(p, "id")).toList(),
                number((Map<String, Object>) sheet.get("session"), "id"),
                test);
    }

    private static long number(Map<String, Object> of, String name) {
        return ((Number) of.get(name)).longValue();
    }

    /** Somebody else of the lab. */
    static void join(Device.Http owner, String address, String name) throws IOException, InterruptedException {
        Object token = owner.ask("POST", "api/people/invitations", JSON.toJson(Map.of("role", "REVIEWER")))
                .get("token");
        Device.Http fresh = new Device.Http(address, Map.of());
        fresh.ask("GET", "api/access", "");
        fresh.ask(
                "POST",
                "api/access/invitation",
                JSON.toJson(Map.of("token", token, "name", name, "password", PASSWORD)));
    }

    /** Signs in as somebody, whoever was signed in before. */
    static void signIn(Browser browser, String address, String name) {
        if (!String.valueOf(browser.driver().getCurrentUrl()).startsWith(address)) {
            browser.open(address + "sign-in");
        }
        browser.js(
                """
                return (async () => {
                  const send = async (path, body) => {
                    await fetch('/api/access');
                    const token = decodeURIComponent(document.cookie.match(/XSRF-TOKEN=([^;]+)/)[1]);
                    return fetch(path, { method: 'POST', body: JSON.stringify(body),
                      headers: { 'Content-Type': 'application/json', 'X-XSRF-TOKEN': token } });
                  };
                  await send('/api/access/sign-out', {});
                  const answer = await send('/api/access/sign-in', { name: arguments[0], password: arguments[1] });
                  if (answer.status !== 200) throw new Error('sign-in ' + answer.status);
                })()""",
                name,
                PASSWORD);
    }

    static void openWriteUp(Browser browser, String address, Place place) {
        browser.open(address + "write-ups/" + place.writeUp());
        browser.see("(//ul[@aria-label='Pieces']/li)[2]");
    }

    /** Adds a line to one of the texts of the write-up that is open. @param piece from 0 */
    static void write(Browser browser, int piece, String line) {
        String item = "(//ul[@aria-label='Pieces']/li)[" + (piece + 1) + "]";
        browser.until("to write", () -> {
            for (var open : browser.driver().findElements(By.xpath(item + "//textarea[@aria-label='Text']"))) {
                open.sendKeys(Keys.chord(Keys.CONTROL, Keys.END), Keys.ENTER + line, Keys.ESCAPE);
                return true;
            }
            browser.driver()
                    .findElement(By.xpath(item + "//*[@aria-label='Text: write']"))
                    .sendKeys(Keys.ENTER);
            return false;
        });
    }

    static void openSheet(Browser browser, String address, Place place) {
        browser.open(address + "bench/sheet/" + place.session());
        browser.see("//button[starts-with(@aria-label, 'Ferry, run 1:')]");
    }

    /** @param run from 1. @param entered whether it is ended with Enter, or left as it is */
    static void score(Browser browser, int run, String value, boolean entered) {
        browser.until("place " + run, () -> {
            browser.driver()
                    .findElement(By.xpath("//button[starts-with(@aria-label, 'Ferry, run " + run
                            + ":')] | //input[@aria-label='Ferry, run " + run + "']"))
                    .click();
            return true;
        });
        browser.keys(Keys.ESCAPE);
        browser.keys(value);
        if (entered) {
            browser.keys(Keys.ENTER);
        }
    }

    static void openForm(Browser browser, String address) {
        browser.open(address + "suites");
        browser.press("New suite n");
        browser.see("//label[starts-with(normalize-space(.), 'Suite')]//input");
    }

    static void form(Browser browser, String value) {
        browser.type("Suite", value);
    }

    /** Everything that this browser keeps for whoever is signed in. */
    static String kept(Browser browser) {
        return (String)
                browser.js(
                        """
                return (async () => {
                  const access = await (await fetch('/api/access')).json();
                  const db = await new Promise((done, fail) => {
                    const opening = indexedDB.open('yarrowmark');
                    opening.onsuccess = () => done(opening.result);
                    opening.onerror = () => fail(opening.error);
                  });
                  const rows = await new Promise((done) => {
                    const all = db.transaction('unsent').objectStore('unsent').getAll();
                    all.onsuccess = () => done(all.result);
                  });
                  db.close();
                  const journal = Object.keys(localStorage)
                    .filter((key) => key.startsWith('yarrowmark.unsent.'))
                    .map((key) => JSON.parse(localStorage.getItem(key)));
                  return JSON.stringify([...rows, ...journal]
                    .filter((one) => !one.gone && one.person === access.person && one.shelf === access.shelf));
                })()""");
    }

    /** What the server has of a write-up's texts. */
    static String texts(Device.Http owner, Place place) throws IOException, InterruptedException {
        return String.valueOf(
                owner.ask("GET", "api/write-ups/" + place.writeUp(), "").get("pieces"));
    }

    /** What the server has of the session, by run. */
    @SuppressWarnings("unchecked")
    static Map<Integer, Double> scores(Device.Http owner, Place place) throws IOException, InterruptedException {
        Map<String, Object> sheet = owner.ask("GET", "api/sessions/" + place.session() + "/sheet", "");
        Map<Integer, Double> scores = new java.util.TreeMap<>();
        for (Map<String, Object> run : (List<Map<String, Object>>)
                ((List<Map<String, Object>>) sheet.get("tests")).get(0).get("runs")) {
            if (run.get("value") != null) {
                scores.put(((Number) run.get("number")).intValue(), ((Number) run.get("value")).doubleValue());
            }
        }
        return scores;
    }
}
