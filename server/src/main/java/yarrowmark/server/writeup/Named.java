package yarrowmark.server.writeup;

import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.IntNode;
import tools.jackson.databind.node.LongNode;
import tools.jackson.databind.node.ObjectNode;

/** The configurations that a piece names, wherever in it they are named. */
final class Named {
    private static final Set<String> ONE = Set.of("configuration", "base", "highlight");
    private static final String SEVERAL = "configurations";

    private Named() {}

    static void in(JsonNode node, Set<Long> into) {
        node.properties().forEach(p -> {
            JsonNode child = p.getValue();
            if (ONE.contains(p.getKey()) || p.getKey().equals(SEVERAL)) {
                (child.isArray() ? child.valueStream() : Stream.of(child))
                        .filter(JsonNode::isIntegralNumber)
                        .forEach(id -> into.add(id.asLong()));
            }
        });
        node.forEach(child -> in(child, into));
    }

    /** @param merged where each configuration is now that is not there any more */
    static void follow(JsonNode node, Map<Long, Long> merged) {
        if (merged.isEmpty()) {
            return;
        }
        if (node instanceof ObjectNode fields) {
            fields.propertyNames().stream().toList().forEach(name -> {
                JsonNode child = fields.path(name);
                if (ONE.contains(name)) {
                    if (child.isIntegralNumber() && merged.containsKey(child.asLong())) {
                        fields.set(name, number(merged, child));
                    }
                } else if (name.equals(SEVERAL) && child instanceof ArrayNode ids) {
                    follow(ids, merged);
                } else {
                    follow(child, merged);
                }
            });
        } else {
            node.forEach(child -> follow(child, merged));
        }
    }

    /** Each stands once: two of them may be one now. */
    private static void follow(ArrayNode ids, Map<Long, Long> merged) {
        for (int i = ids.size() - 1; i >= 0; i--) {
            JsonNode id = ids.get(i);
            if (id.isIntegralNumber() && merged.containsKey(id.asLong())) {
                JsonNode now = number(merged, id);
                boolean there =
                        ids.valueStream().anyMatch(other -> other.isIntegralNumber() && other.asLong() == now.asLong());
                if (there) {
                    ids.remove(i);
                } else {
                    ids.set(i, now);
                }
            }
        }
    }

    private static JsonNode number(Map<Long, Long> merged, JsonNode id) {
        long now = merged.getOrDefault(id.asLong(), id.asLong());
        return now <= Integer.MAX_VALUE ? IntNode.valueOf((int) now) : LongNode.valueOf(now);
    }
}
