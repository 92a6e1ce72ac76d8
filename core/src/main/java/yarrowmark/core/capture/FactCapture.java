package yarrowmark.core.capture;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.IntStream;
import yarrowmark.core.setup.FactReader;
import yarrowmark.core.setup.FactVocabulary;

/**
 * Reads facts out of pasted text. Several tools' output may be pasted at once. Whatever no tool knows is given back, so
 * that a person sees what was not understood.
 */
public final class FactCapture {
    /**
     * @param value in the base unit
     * @param tool  whose output told it
     * @param line  number of the line in the pasted text, from 1
     * @param text  the line itself
     */
    public record Found(String key, String value, String tool, int line, String text) {}

    /** @param number of the line in the pasted text, from 1 */
    public record Unread(int number, String text) {}

    /**
     * @param tools  whose output was recognised
     * @param facts  in vocabulary order, one a key
     * @param doubts other values told for a key that is among the facts
     * @param unread lines that no tool knows
     * @param lines  lines in the text that are not blank
     */
    public record Captured(List<String> tools, List<Found> facts, List<Found> doubts, List<Unread> unread, int lines) {}

    private record Match(Rule rule, PlainLines.Line line, String value) {}

    private static final int MOST_OF_A_KIND = 9;

    private static final List<Tool> TOOLS = ToolFiles.load();

    private FactCapture() {}

    public static Captured read(String pasted) {
        List<PlainLines.Line> lines = PlainLines.of(pasted);
        Set<PlainLines.Line> known = new HashSet<>();
        List<String> tools = new ArrayList<>();
        Map<String, Found> facts = new LinkedHashMap<>();
        List<Found> doubts = new ArrayList<>();
        for (Tool tool : TOOLS) {
            if (lines.stream().noneMatch(l -> tool.signature().matcher(l.text()).find())) {
                continue;
            }
            if (!tools.contains(tool.name())) {
                tools.add(tool.name());
            }
            for (Found found : facts(tool, lines, known)) {
                Found first = facts.putIfAbsent(found.key(), found);
                if (first != null && !first.value().equals(found.value())) {
                    doubts.add(found);
                }
            }
        }
        List<Found> ordered = facts.values().stream()
                .sorted(Comparator.comparing(Found::key, FactVocabulary.order()))
                .toList();
        List<Unread> unread = lines.stream()
                .filter(l -> !known.contains(l))
                .map(l -> new Unread(l.number(), l.text()))
                .toList();
        return new Captured(List.copyOf(tools), ordered, List.copyOf(doubts), unread, lines.size());
    }

    private static List<Found> facts(Tool tool, List<PlainLines.Line> lines, Set<PlainLines.Line> known) {
        tool.mine().ifPresent(mine -> lines.stream()
                .filter(l -> mine.matcher(l.text()).find())
                .forEach(known::add));
        Map<String, List<Match>> matches = new LinkedHashMap<>();
        for (List<PlainLines.Line> block : blocks(tool, lines)) {
            for (Rule rule : tool.rules()) {
                if (rule.when().stream().allMatch(p -> any(block, p))
                        && rule.unless().stream().noneMatch(p -> any(block, p))) {
                    match(rule, block, known, matches.computeIfAbsent(rule.fact(), f -> new ArrayList<>()));
                }
            }
        }
        List<Found> found = new ArrayList<>();
        Map<String, BigDecimal> numbers = new TreeMap<>();
        Map<String, List<BigDecimal>> each = new TreeMap<>();
        matches.forEach((fact, several) -> {
            // Several rules may tell a fact; the first of them in the file that found anything is believed alone.
            List<Match> all = several.isEmpty()
                    ? several
                    : several.stream()
                            .filter(m -> m.rule()
                                    == several.stream()
                                            .map(Match::rule)
                                            .min(Comparator.comparingInt(tool.rules()::indexOf))
                                            .orElseThrow())
                            .toList();
            if (!all.isEmpty()) {
                Rule rule = all.get(0).rule();
                if (rule.each()) {
                    if (!rule.isFact()) {
                        each.put(
                                fact,
                                all.stream()
                                        .flatMap(m -> number(m.value()).stream())
                                        .toList());
                    } else if (all.size() > 1 || rule.take() == Rule.SessionSelection.EACH) {
                        for (int n = 1; n <= Math.min(all.size(), MOST_OF_A_KIND); n++) {
                            Match one = all.get(n - 1);
                            read(tool, FactVocabulary.numbered(fact, n), one.value(), one.line())
                                    .ifPresent(found::addAll);
                        }
                    }
                    return;
                }
                Match told = rule.take() == Rule.SessionSelection.LAST ? all.get(all.size() - 1) : all.get(0);
                taken(all).ifPresent(text -> {
                    if (told.rule().isFact()) {
                        read(tool, fact, text, told.line()).ifPresent(found::addAll);
                    } else {
                        number(text).ifPresent(n -> numbers.put(fact, n));
                    }
                });
            }
        });
        tool.products().forEach((fact, factors) -> {
            // Of several kinds each has factors of its own, and the products are added up.
            List<List<BigDecimal>> several =
                    factors.stream().map(f -> each.getOrDefault(f, List.of())).toList();
            int kinds = several.stream().mapToInt(List::size).max().orElse(0);
            if (kinds > 0 && several.stream().allMatch(l -> l.size() == kinds)) {
                BigDecimal sum = IntStream.range(0, kinds)
                        .mapToObj(i -> several.stream().map(l -> l.get(i)).reduce(BigDecimal.ONE, BigDecimal::multiply))
                        .reduce(BigDecimal.ZERO, BigDecimal::add);
                factors.forEach(f -> numbers.remove(f));
                numbers.put(factors.get(0), sum);
                factors.stream().skip(1).forEach(f -> numbers.put(f, BigDecimal.ONE));
            }
            if (factors.stream().allMatch(numbers::containsKey)) {
                BigDecimal product = factors.stream().map(numbers::get).reduce(BigDecimal.ONE, BigDecimal::multiply);
                read(
                                tool,
                                fact,
                                product.stripTrailingZeros().toPlainString(),
                                Objects.requireNonNull(matches.get(factors.get(0)))
                                        .get(0)
                                        .line())
                        .ifPresent(found::addAll);
            }
        });
        return found;
    }

    private static Optional<List<Found>> read(Tool tool, String fact, String text, PlainLines.Line line) {
        if (!(FactReader.read(FactVocabulary.entry(fact), text) instanceof FactReader.Understood u)) {
            return Optional.empty();
        }
        List<Found> all = new ArrayList<>();
        all.add(new Found(fact, u.value(), tool.name(), line.number(), line.text()));
        u.also().forEach((key, value) -> all.add(new Found(key, value, tool.name(), line.number(), line.text())));
        return Optional.of(all);
    }

    /** Lines belong to the block that the last header began, or to the one their own name puts them in. */
    private static Iterable<List<PlainLines.Line>> blocks(Tool tool, List<PlainLines.Line> lines) {
        if (tool.blocks().isEmpty()) {
            return List.of(lines);
        }
        Pattern header = tool.blocks().get();
        Map<String, List<PlainLines.Line>> blocks = new LinkedHashMap<>();
        int headers = 0;
        for (PlainLines.Line line : lines) {
            Matcher m = header.matcher(line.text());
            boolean begins = m.find();
            if (begins && m.groupCount() > 0) {
                blocks.computeIfAbsent("=" + m.group(1), k -> new ArrayList<>()).add(line);
            } else {
                headers += begins ? 1 : 0;
                blocks.computeIfAbsent("#" + headers, k -> new ArrayList<>()).add(line);
            }
        }
        return blocks.values();
    }

    private static boolean any(List<PlainLines.Line> block, Pattern p) {
        return block.stream().anyMatch(l -> p.matcher(l.text()).find());
    }

    private static void match(Rule rule, List<PlainLines.Line> block, Set<PlainLines.Line> known, List<Match> into) {
        for (PlainLines.Line line : block) {
            Matcher m = rule.line().matcher(line.text());
            if (m.find()) {
                known.add(line);
                String first =
                        m.groupCount() > 0 && m.group(1) != null ? m.group(1).strip() : "";
                boolean silent = rule.ignored().isPresent()
                        && rule.ignored().get().matcher(first).find();
                if (!silent && (m.groupCount() == 0 || !first.isEmpty())) {
                    into.add(new Match(rule, line, value(rule, m)));
                }
            }
        }
    }

    private static String value(Rule rule, Matcher m) {
        if (m.groupCount() == 0) {
            return rule.as().orElse("1");
        }
        String value = rule.as().orElse("$1");
        for (int i = m.groupCount(); i >= 1; i--) {
            String group = m.group(i) == null ? "" : m.group(i).strip();
            String cleaned = rule.remove().isPresent()
                    ? rule.remove().get().matcher(group).replaceAll("")
                    : group;
            value = value.replace("$" + i, cleaned);
        }
        return rule.words().getOrDefault(value, value).strip();
    }

    private static Optional<String> taken(List<Match> all) {
        List<String> values = all.stream().map(Match::value).toList();
        return switch (all.get(0).rule().take()) {
            case FIRST -> Optional.of(values.get(0));
            case LAST -> Optional.of(values.get(values.size() - 1));
            case COUNT -> Optional.of(Integer.toString(values.size()));
            case DISTINCT -> Optional.of(Integer.toString(new LinkedHashSet<>(values).size()));
            case SUM -> sum(all.get(0).rule(), values);
            case EACH, EACH_OF_SEVERAL -> throw new IllegalStateException("each stands for itself");
            case MOST ->
                values.stream()
                        .filter(v -> size(all.get(0).rule(), v).isPresent())
                        .max(Comparator.comparing(
                                v -> size(all.get(0).rule(), v).orElseThrow()));
        };
    }

    /** In the base unit, because each value may have a unit of its own. */
    private static Optional<BigDecimal> size(Rule rule, String value) {
        return rule.isFact()
                        && FactReader.read(FactVocabulary.entry(rule.fact()), value) instanceof FactReader.Understood u
                ? number(u.value())
                : number(value);
    }

    /** Sums are taken in base units, because each value may have a unit of its own. */
    private static Optional<String> sum(Rule rule, List<String> values) {
        BigDecimal sum = BigDecimal.ZERO;
        for (String value : values) {
            Optional<BigDecimal> number = size(rule, value);
            if (number.isEmpty()) {
                return Optional.empty();
            }
            sum = sum.add(number.get());
        }
        return Optional.of(sum.toPlainString()
                + (rule.isFact()
                                && FactVocabulary.entry(rule.fact())
                                        .dimension()
                                        .base()
                                        .equals("By")
                        ? " B"
                        : ""));
    }

    private static Optional<BigDecimal> number(String text) {
        try {
            return Optional.of(new BigDecimal(text.replace(" ", "")));
        } catch (NumberFormatException e) {
            return Optional.empty();
        }
    }
}
