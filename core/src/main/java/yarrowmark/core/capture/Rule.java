package yarrowmark.core.capture;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;

/**
 * One rule of a tool's file: which line tells a fact, and how.
 *
 * @param fact    key of the fact; a name that begins with "_" is kept for products and is no fact
 * @param line    matches the line; its first group is the value where there is no template
 * @param when    each must be found in some line of the same block
 * @param unless  none may be found in any line of the same block
 * @param as      template for the text that is then read as if a person had typed it: "$1 KiB"
 * @param take    what to do with several matches
 * @param remove  taken out of the value first, such as separators of thousands
 * @param words   whole values that are written otherwise: "rotational 1" is "disk"
 * @param ignored values that say nothing, such as "Not Specified"
 */
record Rule(
        String fact,
        Pattern line,
        List<Pattern> when,
        List<Pattern> unless,
        Optional<String> as,
        SessionSelection take,
        Optional<Pattern> remove,
        Map<String, String> words,
        Optional<Pattern> ignored) {
    enum SessionSelection {
        FIRST,
        LAST,
        COUNT,
        DISTINCT,
        SUM,
        MOST,
        /** Each is a fact of its own: the first under its key, the next ones numbered. */
        EACH,
        /** The same, where there is more than one. */
        EACH_OF_SEVERAL
    }

    Rule {
        when = List.copyOf(when);
        unless = List.copyOf(unless);
        words = Map.copyOf(words);
    }

    boolean each() {
        return take == SessionSelection.EACH || take == SessionSelection.EACH_OF_SEVERAL;
    }

    boolean isFact() {
        return !fact.startsWith("_");
    }
}
