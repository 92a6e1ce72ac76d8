package yarrowmark.runner.offline;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.json.JsonMapper;

/**
 * What to carry out without a bench; docs/formats.md describes the file.
 *
 * @param name        of the session
 * @param deviceClass needed where the shelf does not have the model yet
 * @param tests       keys of native tests, in their order
 */
public record OfflinePlan(
        String name,
        String maker,
        String model,
        @Nullable String deviceClass,
        @Nullable String unit,
        int runs,
        int timedMs,
        int pauseMs,
        List<String> tests) {
    private static final int MOST_RUNS = 50;
    private static final int LONGEST_TIMED_MS = 7_200_000;
    private static final Set<String> CLASSES = Set.of("laptop", "desktop", "mini", "tablet", "phone", "board");

    /** Says what is wrong with a plan, where, and why. */
    public static final class Wrong extends RuntimeException {
        private static final long serialVersionUID = 1;

        Wrong(String words) {
            super(words);
        }
    }

    /** The file as it is, before anything of it is believed. */
    record Typed(
            @Nullable String name,
            @Nullable String maker,
            @Nullable String model,
            @Nullable String deviceClass,
            @Nullable String unit,
            @Nullable Integer runs,
            @Nullable Integer timedMs,
            @Nullable Integer pauseMs,
            @Nullable List<@Nullable String> tests) {}

    /** @param known keys that the runner can carry out */
    public static OfflinePlan read(Path file, Set<String> known) throws IOException {
        Typed typed;
        try {
            typed = JsonMapper.builder()
                    .enable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)
                    .build()
                    .readValue(Files.readString(file, StandardCharsets.UTF_8), Typed.class);
        } catch (JacksonException e) {
            throw new Wrong(file + " is no plan: " + e.getOriginalMessage()
                    + (e.getLocation() == null
                            ? ""
                            : " (line " + e.getLocation().getLineNr() + ")"));
        } catch (java.nio.charset.CharacterCodingException e) {
            throw new Wrong(file + " is no text in UTF-8.");
        }
        if (typed == null) {
            throw new Wrong(file + " is empty.");
        }
        List<String> tests = new ArrayList<>();
        for (String key : typed.tests() == null ? List.<@Nullable String>of() : typed.tests()) {
            if (key == null || !known.contains(key)) {
                throw new Wrong("The runner has no test “" + key + "”; --tests lists those that it has.");
            }
            if (!tests.contains(key)) {
                tests.add(key);
            }
        }
        if (tests.isEmpty()) {
            throw new Wrong("The plan has no tests.");
        }
        String deviceClass =
                typed.deviceClass() == null ? null : typed.deviceClass().toLowerCase(Locale.ROOT);
        if (deviceClass != null && !CLASSES.contains(deviceClass)) {
            throw new Wrong(
                    "deviceClass is one of laptop, desktop, mini, tablet, phone and board, not “" + deviceClass + "”.");
        }
        return new OfflinePlan(
                typed.name() == null || typed.name().isBlank()
                        ? "Without a bench"
                        : typed.name().strip(),
                words(typed.maker(), "maker"),
                words(typed.model(), "model"),
                deviceClass,
                typed.unit(),
                within(typed.runs(), "runs", 3, 1, MOST_RUNS),
                within(typed.timedMs(), "timedMs", 3_000, 10, LONGEST_TIMED_MS),
                within(typed.pauseMs(), "pauseMs", 0, 0, LONGEST_TIMED_MS),
                tests);
    }

    private static String words(@Nullable String value, String name) {
        if (value == null || value.isBlank()) {
            throw new Wrong("The plan does not say the " + name + " of this computer.");
        }
        return value.strip();
    }

    private static int within(@Nullable Integer value, String name, int otherwise, int least, int most) {
        int is = value == null ? otherwise : value;
        if (is < least || is > most) {
            throw new Wrong(name + " is " + least + " to " + most + ", not " + is + ".");
        }
        return is;
    }
}
