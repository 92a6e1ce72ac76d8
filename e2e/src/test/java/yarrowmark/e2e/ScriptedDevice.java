package yarrowmark.e2e;

import java.util.function.Supplier;

/** A device whose driver does little more than carry out scripts: it presses and types by them. */
abstract class ScriptedDevice implements UnderTest {
    /** @param body of a function. @return a text, a number, yes or no, or null */
    abstract Object js(String body);

    @Override
    public <T> T until(String what, Supplier<T> look) {
        return Patience.until(
                () -> what + " did not come about. The page says:\n" + js("return document.body.innerText"), look);
    }

    @Override
    public void press(String button) {
        until(
                "to press " + button,
                () -> Boolean.TRUE.equals(js(
                        "const b = [...document.querySelectorAll('button')].find((b) => b.innerText.trim().startsWith("
                                + quoted(button) + ") && !b.disabled); b?.click(); return b !== undefined")));
    }

    @Override
    public void type(String label, String words) {
        // The page hears of what is put into a field only where it is put past its own setter.
        until(
                "to type " + label,
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
