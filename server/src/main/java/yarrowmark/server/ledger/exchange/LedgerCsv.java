package yarrowmark.server.ledger.exchange;

import jakarta.persistence.EntityManager;
import jakarta.persistence.TypedQuery;
import java.io.IOException;
import java.io.OutputStream;
import java.io.OutputStreamWriter;
import java.io.UncheckedIOException;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Stream;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.measure.Direction;
import yarrowmark.server.ledger.line.LedgerConditions;
import yarrowmark.server.ledger.line.LedgerConditions.Condition;
import yarrowmark.server.ledger.line.LedgerFilter;

/** Writes any view of the ledger as CSV, one row a reading or a run without one. docs/formats.md describes the columns. */
@Service
class LedgerCsv {
    /** Columns of every such file, which an import understands as well; those of the facts stand between the two. */
    static final List<String> BEFORE_FACTS = List.of("maker", "model", "class", "unit", "configuration");

    /** Says of a value that it was computed from others of its session: an import never weighs it beside them. */
    static final String COMPUTED = "computed";

    static final List<String> AFTER_FACTS = List.of(
            "suite",
            "version",
            "mode",
            "test",
            "metric",
            "measure unit",
            "direction",
            "group",
            "kind",
            "scale",
            "choices",
            "session",
            "started",
            "run",
            "attempt",
            "finished",
            "state",
            "reason",
            "value",
            "resolution",
            "counted",
            "note",
            ImportConditions.POWER,
            ImportConditions.RECORDING,
            ImportConditions.OTHER_WORK,
            COMPUTED);
    private static final String FROM =
            """
        from Run r join TestDefinition t on t.id = r.testId join t.suiteVersion v join v.suite s join Session se on se.id = r.sessionId
        join Configuration c on c.id = r.configurationId join c.unit u join u.model m join m.maker k
        left join Reading rd on rd.runId = r.id left join Metric x on x.id = rd.metricId
        left join SetAside a on a.readingId = rd.id and a.takenBackAt is null""";

    private final EntityManager entities;
    private final LedgerConditions conditions;

    LedgerCsv(EntityManager entities, LedgerConditions conditions) {
        this.conditions = conditions;
        this.entities = entities;
    }

    /** Oldest first, in UTF-8, with line ends as RFC 4180 has them. */
    @Transactional(readOnly = true)
    public void write(LedgerFilter filter, OutputStream to) {
        Condition condition = conditions.of(filter);
        Map<Long, Map<String, String>> facts = facts(condition);
        List<String> keys = facts.values().stream()
                .flatMap(f -> f.keySet().stream())
                .distinct()
                .sorted()
                .toList();
        List<String> header = new ArrayList<>(BEFORE_FACTS);
        keys.forEach(k -> header.add("fact:" + k));
        header.addAll(AFTER_FACTS);
        TypedQuery<Object[]> query = condition.bound(entities.createQuery(
                "select k.name, m.name, m.deviceClass, u.label, c.name, c.id, s.name, v.version, v.mode, t.name, x.name, x.unit, x.direction, "
                        + "se.planName, se.startedAt, r.runNumber, r.attempt, r.finishedAt, r.state, r.reason, r.reasonWords, rd.value, rd.resolution, a.reason, t.testGroup, x.kind, x.scale, x.choices, se.onMains, se.recording, se.otherWork, x.formula "
                        + FROM + condition.where() + " order by r.finishedAt, r.id, rd.id",
                Object[].class));
        query.setHint("org.hibernate.fetchSize", 2_000);
        try (CSVPrinter csv = new CSVPrinter(new OutputStreamWriter(to, StandardCharsets.UTF_8), CSVFormat.RFC4180);
                Stream<Object[]> rows = query.getResultStream()) {
            csv.printRecord(header.stream().map(LedgerCsv::safe).toList());
            rows.forEach(row -> print(csv, row, facts.getOrDefault((Long) row[5], Map.of()), keys));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private Map<Long, Map<String, String>> facts(Condition condition) {
        TypedQuery<Object[]> query = condition.bound(entities.createQuery(
                "select f.configuration.id, f.factKey, f.factValue from Fact f where f.configuration.id in (select r.configurationId "
                        + FROM + condition.where() + ")",
                Object[].class));
        Map<Long, Map<String, String>> facts = new HashMap<>();
        query.getResultList().forEach(r -> facts.computeIfAbsent((Long) r[0], id -> new HashMap<>())
                .put((String) r[1], (String) r[2]));
        return facts;
    }

    private static void print(CSVPrinter csv, Object[] r, Map<String, String> facts, List<String> keys) {
        List<Object> cells = new ArrayList<>();
        for (int i = 0; i < BEFORE_FACTS.size(); i++) {
            cells.add(i == 2 ? r[2].toString().toLowerCase(Locale.ROOT) : safe((String) r[i]));
        }
        keys.forEach(k -> cells.add(safe(facts.get(k))));
        for (int i = 6; i <= 11; i++) {
            cells.add(safe((String) r[i]));
        }
        cells.add(r[12] == null ? null : r[12] == Direction.MORE_IS_BETTER ? "more" : "less");
        cells.add(r[24].toString().toLowerCase(Locale.ROOT));
        cells.add(
                r[25] == null ? null : r[25].toString().toLowerCase(Locale.ROOT).replace('_', ' '));
        cells.add(r[26] == null ? null : r[26].toString().toLowerCase(Locale.ROOT));
        cells.add(r[27] == null ? null : safe(r[27].toString().replace("\n", " < ")));
        cells.add(safe((String) r[13]));
        for (int i = 14; i <= 17; i++) {
            cells.add(r[i]);
        }
        cells.add(r[18].toString().toLowerCase(Locale.ROOT).replace('_', ' '));
        cells.add(
                r[19] == null ? null : r[19].toString().toLowerCase(Locale.ROOT).replace('_', ' '));
        cells.add(number((Double) r[21]));
        cells.add(number((Double) r[22]));
        cells.add(r[21] == null ? null : r[23] == null ? "yes" : "no");
        cells.add(safe(r[23] != null ? (String) r[23] : (String) r[20]));
        cells.add(r[28] == null ? null : (Boolean) r[28] ? "mains" : "battery");
        cells.add(yes((Boolean) r[29]));
        cells.add(yes((Boolean) r[30]));
        cells.add(r[31] == null ? null : "yes");
        try {
            csv.printRecord(cells);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static @Nullable String yes(@Nullable Boolean value) {
        return value == null ? null : value ? "yes" : "no";
    }

    /** All its digits, and no exponent: some programs read one as text. */
    private static @Nullable String number(@Nullable Double value) {
        return value == null ? null : new BigDecimal(value.toString()).toPlainString();
    }

    /** Text that a spreadsheet would take for a formula is kept as text by a leading apostrophe. */
    static @Nullable String safe(@Nullable String text) {
        return text != null && !text.isEmpty() && "=+-@\t\r".indexOf(text.charAt(0)) >= 0 ? "'" + text : text;
    }
}
