package yarrowmark.server.shelf.model;

import java.util.function.BiConsumer;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import org.hibernate.Hibernate;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.setup.FactKey;
import yarrowmark.core.setup.FactReader;
import yarrowmark.core.setup.FactText;
import yarrowmark.server.platform.PlainLine;
import yarrowmark.server.platform.Problem;

/**
 * A value of a record that people change in place. What is kept is text, so that the change log can hold it and an undo
 * can put it back.
 *
 * @param example how it may be written
 * @param longest most characters
 * @param read    typed text to kept text; throws a Problem that says how to write it
 * @param show    kept text to what people read
 */
public record EditableField<T>(
        String name,
        String label,
        String example,
        int longest,
        boolean required,
        Function<T, @Nullable String> get,
        BiConsumer<T, @Nullable String> set,
        UnaryOperator<String> read,
        UnaryOperator<String> show) {

    static <T> EditableField<T> text(
            String name,
            String label,
            String example,
            int longest,
            Function<T, @Nullable String> get,
            BiConsumer<T, @Nullable String> set) {
        return new EditableField<>(
                name, label, example, longest, false, get, set, UnaryOperator.identity(), UnaryOperator.identity());
    }

    static <T> EditableField<T> quantity(
            String name, FactKey key, Function<T, @Nullable String> get, BiConsumer<T, @Nullable String> set) {
        return new EditableField<>(
                name,
                key.label(),
                FactReader.example(key),
                60,
                false,
                get,
                set,
                text -> understood(key, text),
                kept -> FactText.of(key, kept));
    }

    EditableField<T> mandatory() {
        return new EditableField<>(
                name, label, example, longest, true, get, set, text -> read.apply(plain(text)), show);
    }

    private static String plain(String text) {
        if (!PlainLine.Check.isPlain(text)) {
            throw Problem.invalid(
                    "not-plain", "A name needs something to see, on one line, without control characters.");
        }
        return text;
    }

    EditableField<T> readBy(UnaryOperator<String> newRead) {
        return new EditableField<>(name, label, example, longest, required, get, set, newRead, show);
    }

    /** What is kept now. A record may stand in for one that is not loaded yet, and then has no fields of its own. */
    @Nullable
    public String value(T record) {
        return get.apply(loaded(record));
    }

    public void put(T record, @Nullable String kept) {
        set.accept(loaded(record), kept);
    }

    @SuppressWarnings("unchecked")
    private static <T> T loaded(T record) {
        return (T) Hibernate.unproxy(record);
    }

    /** The kept text for what somebody typed; null where the field is emptied. */
    @Nullable
    public String kept(@Nullable String typed) {
        String text = typed == null ? "" : typed.strip();
        if (text.isEmpty()) {
            if (required) {
                throw Problem.invalid("empty", label + " cannot be empty.");
            }
            return null;
        }
        if (text.length() > longest) {
            throw Problem.invalid(
                    "too-long", label + " has " + text.length() + " characters; " + longest + " are the most.");
        }
        return read.apply(text);
    }

    @Nullable
    public String shown(@Nullable String kept) {
        return kept == null ? null : show.apply(kept);
    }

    public static String understood(FactKey key, String text) {
        FactReader.Reading reading = FactReader.read(key, text);
        if (reading instanceof FactReader.Understood understood) {
            return understood.value();
        }
        throw Problem.invalid("not-understood", ((FactReader.NotUnderstood) reading).reason());
    }
}
