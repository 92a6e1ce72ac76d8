package yarrowmark.server.shelf.configuration;

import jakarta.validation.Valid;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import yarrowmark.core.capture.FactCapture;
import yarrowmark.core.setup.FactChoice;
import yarrowmark.core.setup.FactKey;
import yarrowmark.core.setup.FactReader;
import yarrowmark.core.setup.FactText;
import yarrowmark.core.setup.FactVocabulary;

/** The vocabulary, and reading what people type and paste. Nothing here is stored. */
@RestController
@RequestMapping("/api/facts")
class FactsController {
    private static final int MOST_UNREAD = 4_000;

    /** @param tolerance up to which difference two values count as the same, as people write it; null where only equal is the same */
    record VocabularyEntry(
            String key,
            String label,
            String brief,
            String group,
            FactKey.Type type,
            String example,
            List<String> choices,
            @Nullable String tolerance) {}

    record UnderstandBody(@NotBlank @Size(max = 80) String key, @NotNull @Size(max = 2_000) String text) {}

    /**
     * @param key    of the vocabulary, where the name that was given is that of an entry
     * @param value  in the base unit; null where the text was not understood
     * @param note   what may surprise
     * @param reason why it was not understood
     * @param also   other facts the same text tells, as people write them, by label
     */
    record Understanding(
            String key,
            @Nullable String value,
            @Nullable String shown,
            @Nullable String note,
            @Nullable String reason,
            Map<String, String> also) {}

    record ReadBody(@NotNull @Size(max = 1_800_000) String text) {}

    /** @param exact a text that is read as exactly this value when it is sent back */
    record ReadFact(
            String key, String label, String group, String exact, String shown, String tool, int line, String text) {}

    record UnreadLine(int number, String text) {}

    /** @param unreadTotal how many lines were not recognised; the first of them are in the list */
    record ReadAnswer(
            List<String> tools,
            List<ReadFact> facts,
            List<ReadFact> doubts,
            List<UnreadLine> unread,
            int unreadTotal,
            int lines) {}

    /**
     * @param exact a text that is read as exactly this value
     * @param used  in how many configurations
     */
    record UsedValue(String exact, String shown, long used) {}

    private final JdbcTemplate jdbc;

    FactsController(JdbcTemplate jdbc) {
        this.jdbc = jdbc;
    }

    @GetMapping("/vocabulary")
    List<VocabularyEntry> vocabulary() {
        return FactVocabulary.all().stream()
                .map(k -> new VocabularyEntry(
                        k.key(),
                        k.label(),
                        k.brief(),
                        k.group().label(),
                        k.type(),
                        FactReader.example(k),
                        k.choices().stream().map(FactChoice::name).toList(),
                        tolerance(k)))
                .toList();
    }

    private static @Nullable String tolerance(FactKey key) {
        if (key.tolerance().absolute() > 0) {
            return FactText.of(key, Double.toString(key.tolerance().absolute()));
        }
        return key.tolerance().relative() > 0
                ? String.format(
                        Locale.ROOT,
                        "%s %%",
                        Double.toString(key.tolerance().relative() * 100).replaceAll("\\.0$", ""))
                : null;
    }

    @PostMapping("/understand")
    Understanding understand(@Valid @RequestBody UnderstandBody body) {
        String key = TypedFacts.key(body.key(), new java.util.ArrayList<>());
        FactReader.Reading reading = FactReader.read(FactVocabulary.entry(key), body.text());
        if (reading instanceof FactReader.Understood u) {
            Map<String, String> also = new java.util.TreeMap<>();
            u.also()
                    .forEach((k, v) ->
                            also.put(FactVocabulary.entry(k).label(), FactText.of(FactVocabulary.entry(k), v)));
            return new Understanding(key, u.value(), u.shown(), u.note().isEmpty() ? null : u.note(), null, also);
        }
        return new Understanding(key, null, null, null, ((FactReader.NotUnderstood) reading).reason(), Map.of());
    }

    /** Facts in what a system's own tools print; each is to be accepted by a person. */
    @PostMapping("/read")
    ReadAnswer read(@Valid @RequestBody ReadBody body) {
        FactCapture.Captured c = FactCapture.read(body.text());
        return new ReadAnswer(
                c.tools(),
                c.facts().stream().map(FactsController::shown).toList(),
                c.doubts().stream().map(FactsController::shown).toList(),
                c.unread().stream()
                        .limit(MOST_UNREAD)
                        .map(u -> new UnreadLine(u.number(), u.text()))
                        .toList(),
                c.unread().size(),
                c.lines());
    }

    private static ReadFact shown(FactCapture.Found f) {
        FactKey key = FactVocabulary.entry(f.key());
        return new ReadFact(
                f.key(),
                key.label(),
                key.group().label(),
                FactReader.exactText(key, f.value()),
                FactText.of(key, f.value()),
                f.tool(),
                f.line(),
                f.text());
    }

    /** Values that configurations have already, the most used first. */
    @GetMapping("/values")
    List<UsedValue> values(
            @RequestParam @Size(max = 80) String key,
            @RequestParam(defaultValue = "") @Size(max = 120) String q,
            @RequestParam(defaultValue = "8") @Min(1) @Max(50) int most) {
        FactKey known = FactVocabulary.entry(key);
        String wanted = q.strip().toLowerCase(Locale.ROOT);
        return jdbc
                .query(
                        "select fact_value, count(*) from fact where fact_key = ? group by fact_value order by count(*) desc, fact_value limit 2000",
                        (r, i) -> new UsedValue(
                                FactReader.exactText(known, r.getString(1)),
                                FactText.of(known, r.getString(1)),
                                r.getLong(2)),
                        key)
                .stream()
                .filter(v ->
                        wanted.isEmpty() || v.shown().toLowerCase(Locale.ROOT).contains(wanted))
                .limit(most)
                .toList();
    }
}
