package yarrowmark.e2e;

import java.time.Duration;
import java.util.function.Function;
import java.util.function.Supplier;
import org.openqa.selenium.support.ui.FluentWait;

/** A device whose driver does little more than carry out scripts: it presses and types by them. */
abstract class ScriptedDevice implements UnderTest {
    private static final Duration PATIENCE = Duration.ofSeconds(60);

    /** @param body of a function. @return a text, a number, yes or no, or null */
    abstract Object js(String body);

    @Override
    public <T> T until(String what, Duration patience, Supplier<T> look) {
        return new FluentWait<>(this)
                .withTimeout(patience)
                .pollingEvery(Duration.ofMillis(250))
                .withMessage(
                        () -> what + " did not come about. The page says:\n" + js("return document.body.innerText"))
                .until((Function<Object, T>) d -> look.get());
    }

    @Override
    public void press(String button) {
        until(
                "to press " + button,
                PATIENCE,
                () -> Boolean.TRUE.equals(js(
                        "const b = [...document.querySelectorAll('button')].find((b) => b.innerText.trim().startsWith("
                                + quoted(button) + ") && !b.disabled); b?.click(); return b !== undefined")));
    }

    @Override
    public void type(String label, String words) {
        // The page hears of what is put into a field only where it is put past its own setter.
        until(
                "to type " + label,
                PATIENCE,
                () -> Boolean.TRUE.equals(js(
                        "const l = [...document.querySelectorAll('label')].find((l) => l.innerText.trim().startsWith("
                                + quoted(label)
                                + ")); const field = l && (l.control ?? l.querySelector('input')); if (!field) return false;"
                                + "Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set.call(field, "
                                + quoted(words)
                                + "); field.dispatchEvent(new Event('input', { bubbles: true })); return true")));
    }

    @Override
    public String heading() {
        return String.valueOf(js("return document.querySelector('h1')?.innerText ?? ''"));
    }

    @Override
    public String agent() {
        return String.valueOf(js("return navigator.userAgent"));
    }

    private static String quoted(String words) {
        return "'" + words.replace("\\", "\\\\").replace("'", "\\'") + "'";
    }
}
