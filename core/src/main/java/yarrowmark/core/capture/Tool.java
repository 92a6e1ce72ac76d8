package yarrowmark.core.capture;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;

/**
 * The rules for what one tool prints.
 *
 * @param name      "lscpu"
 * @param signature some line of the text must match for the tool to be tried at all
 * @param mine      lines this tool prints; what no rule reads of them is still known to be nothing of interest
 * @param blocks    where a block begins, or, with a group, what names the block a line belongs to; empty: one block
 * @param products  a fact and the names of the two values whose product it is
 */
record Tool(
        String name,
        Pattern signature,
        Optional<Pattern> mine,
        Optional<Pattern> blocks,
        List<Rule> rules,
        Map<String, List<String>> products) {
    Tool {
        rules = List.copyOf(rules);
        products = Map.copyOf(products);
    }
}
