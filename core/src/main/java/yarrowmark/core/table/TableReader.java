package yarrowmark.core.table;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import yarrowmark.core.entry.ScoreText;
import yarrowmark.core.entry.TestLines;
import yarrowmark.core.measure.Scale;
import yarrowmark.core.setup.FactReader;
import yarrowmark.core.setup.FactVocabulary;
import yarrowmark.core.table.TableReading.Device;
import yarrowmark.core.table.TableReading.Remark;
import yarrowmark.core.table.TableReading.Score;

/** Reads one table by one layout. */
final class TableReader {
    private static final Pattern NOT_YET =
            Pattern.compile("(?i)\\?|tbd|todo|not tested|untested|not yet|pending|open|…|\\.\\.\\.");
    private static final Pattern NOTHING_RAN = Pattern.compile(
            "(?i)dn[fs]|did not (?:finish|start|run)|time ?out|timed out|err(?:or)?|abort(?:ed)?|hung|hangs?|froze|bsod|black screen|no driver.*|crash(?:e[ds])?\\b.*|fail(?:ed|s|ure)?\\b.*|not supported|unsupported|no score|x");
    private static final Pattern FOOT = Pattern.compile("(.*?)\\s*(\\*{1,3}|[†‡]|\\^?\\d?\\)|[¹²³])$");
    private static final Pattern CLOCK = Pattern.compile("\\d{1,3}:\\d{2}");

    private final Table table;
    private final TableLayout layout;
    private final KnownNames known;
    private final TableNumbers numbers;
    private final List<Device> devices = new ArrayList<>();
    private final List<Score> scores = new ArrayList<>();
    private final List<Remark> remarks = new ArrayList<>();
    private final Map<String, String> notes = new HashMap<>();
    private final Map<List<Object>, Integer> seen = new HashMap<>();

    TableReader(Table table, TableLayout layout, KnownNames known) {
        this.table = table;
        this.layout = layout;
        this.known = known;
        this.numbers = TableNumbers.of(table);
    }

    TableReading read() {
        for (int row = layout.firstRow(); row < table.height(); row++) {
            String alone = table.filled(row) == 1
                    ? table.rows().get(row).stream()
                            .filter(c -> !c.isEmpty())
                            .findFirst()
                            .orElseThrow()
                            .text()
                    : "";
            Matcher foot = Pattern.compile("(\\*{1,3}|[†‡¹²³])\\s*(.+)").matcher(alone);
            if (foot.matches()) {
                notes.put(foot.group(1), foot.group(2));
            }
        }
        Optional<ColumnPlan> model = column(ColumnRole.MODEL);
        if (model.isPresent()) {
            for (int row = layout.firstRow(); row <= Math.min(layout.lastRow(), table.height() - 1); row++) {
                if (!layout.skipped().contains(row)
                        && !table.text(row, model.get().column()).isEmpty()) {
                    device(row, table.text(row, model.get().column()));
                }
            }
        }
        return new TableReading(devices, scores, remarks, SheetTotals.checked(table, layout, numbers, devices, scores));
    }

    private Optional<ColumnPlan> column(ColumnRole role) {
        return layout.columns().stream().filter(p -> p.role() == role).findFirst();
    }

    private String text(int row, ColumnRole role) {
        return column(role).map(p -> table.text(row, p.column())).orElse("");
    }

    private void device(int row, String written) {
        Map<String, String> facts = new TreeMap<>();
        Map<String, String> fields = new LinkedHashMap<>();
        String name = written;
        Matcher foot = FOOT.matcher(written);
        if (foot.matches() && notes.containsKey(foot.group(2))) {
            name = foot.group(1);
            facts.put(TableReading.NOTE_FACT, notes.get(foot.group(2)));
        }
        for (ColumnPlan p : layout.columns()) {
            String text = numbers.plain(table.cell(row, p.column()));
            if (table.cell(row, p.column()).form() == TableCell.Form.ERROR && p.role() != ColumnRole.IGNORED) {
                remark(row, p, Remark.Kind.UNREAD, "The formula here came to nothing: " + text + ".");
            } else if (!text.isEmpty() && !isNothing(text)) {
                if (p.role() == ColumnRole.FACT) {
                    fact(row, p, text, facts);
                } else if (p.role() == ColumnRole.MODEL_FIELD) {
                    field(row, p, text).ifPresent(v -> fields.put(p.name(), v));
                }
            }
        }
        KnownNames.Named said = named(name, text(row, ColumnRole.MAKER));
        boolean isKnown = known.model(said.full()).isPresent();
        LocalDate date = date(row);
        List<Object> same = List.of(
                said.full().toLowerCase(Locale.ROOT),
                text(row, ColumnRole.UNIT),
                facts,
                date,
                text(row, ColumnRole.SESSION));
        int again = seen.merge(same, 1, Integer::sum) - 1;
        devices.add(new Device(
                row,
                name,
                said.maker(),
                said.model(),
                isKnown || layout.names().containsKey(name) ? Optional.empty() : known.nearest(said.full()),
                isKnown,
                deviceClass(row),
                text(row, ColumnRole.UNIT),
                date,
                text(row, ColumnRole.SESSION),
                text(row, ColumnRole.NOTE),
                fields,
                facts,
                again));
        int before = scores.size();
        layout.columns().stream().filter(p -> p.role() == ColumnRole.TEST).forEach(p -> score(row, p));
        keepOneStateARun(scores.subList(before, scores.size()));
    }

    /** A run has one state, whichever of its numbers say so, and none where one of them has a value. */
    private static void keepOneStateARun(List<Score> ofRow) {
        Set<List<Object>> told = new HashSet<>();
        ofRow.stream().filter(s -> s.value().isPresent()).forEach(s -> told.add(runOf(s)));
        ofRow.removeIf(s -> s.value().isEmpty() && !told.add(runOf(s)));
    }

    private static List<Object> runOf(Score s) {
        return List.of(s.test().name().toLowerCase(Locale.ROOT), s.test().run());
    }

    private KnownNames.Named named(String name, String maker) {
        String told = layout.names().get(name);
        if (told != null && told.contains("\t")) {
            return new KnownNames.Named(told.substring(0, told.indexOf('\t')), told.substring(told.indexOf('\t') + 1));
        }
        String full = maker.isEmpty() || name.toLowerCase(Locale.ROOT).startsWith(maker.toLowerCase(Locale.ROOT) + " ")
                ? name
                : maker + " " + name;
        Optional<KnownNames.Named> there = known.model(full);
        if (there.isPresent()) {
            return there.get();
        }
        String of = !maker.isEmpty() ? maker : known.makerOf(full).orElseGet(() -> full.split(" ")[0]);
        String rest = full.length() > of.length() ? full.substring(of.length()).strip() : full;
        return new KnownNames.Named(full.substring(0, Math.min(of.length(), full.length())), rest);
    }

    private String deviceClass(int row) {
        String own = text(row, ColumnRole.DEVICE_CLASS).toLowerCase(Locale.ROOT);
        String plain = own.replaceAll("e?s$", "");
        return switch (plain) {
            case "" -> layout.deviceClass() == null ? "" : layout.deviceClass();
            case "notebook", "ultrabook" -> "laptop";
            case "smartphone", "handset" -> "phone";
            case "mini pc", "nuc" -> "mini";
            case "tower", "workstation", "pc" -> "desktop";
            default -> plain;
        };
    }

    private LocalDate date(int row) {
        Optional<ColumnPlan> p = column(ColumnRole.DATE);
        String text = p.map(x -> table.text(row, x.column())).orElse("");
        if (!text.isEmpty()) {
            Optional<LocalDate> read = TableDates.read(text, layout.dayFirst());
            if (read.isPresent()) {
                return read.get();
            }
            remark(
                    row,
                    p.orElseThrow(),
                    Remark.Kind.UNREAD,
                    "\"" + text + "\" is no date; the day of the whole table is taken.");
        }
        return TableDates.read(layout.date(), true).orElse(LocalDate.EPOCH);
    }

    private void fact(int row, ColumnPlan p, String text, Map<String, String> facts) {
        String typed = p.unit().isEmpty() || !text.matches("[\\d.]+") ? text : text + " " + p.unit();
        FactReader.Reading read = FactReader.read(FactVocabulary.entry(p.name()), typed);
        if (read instanceof FactReader.Understood u) {
            facts.put(p.name(), u.value());
            u.also().forEach(facts::putIfAbsent);
        } else if (read instanceof FactReader.NotUnderstood n) {
            remark(row, p, Remark.Kind.UNREAD, n.reason());
        }
    }

    private Optional<String> field(int row, ColumnPlan p, String text) {
        ModelFieldText.Read read = ModelFieldText.read(p.name(), text, p.unit(), layout);
        if (read.typed().isEmpty()) {
            remark(row, p, Remark.Kind.UNREAD, read.reason());
        }
        return read.typed();
    }

    private void score(int row, ColumnPlan p) {
        TableCell cell = table.cell(row, p.column());
        String text = numbers.plain(cell);
        if (text.isEmpty() || NOT_YET.matcher(text).matches() || cell.form() == TableCell.Form.ERROR) {
            return;
        }
        String unit = p.unit().equals("h:min") ? "min" : p.unit();
        String typed = p.unit().equals("h:min") && CLOCK.matcher(text).matches() ? text + ":00" : text;
        if (NOTHING_RAN.matcher(typed).matches()) {
            boolean ran = !typed.matches("(?i)not supported|unsupported|no driver.*|did not (?:start|run)|dns");
            state(row, p, ran, text);
            return;
        }
        ScoreText.Said said = ScoreText.read(withoutFoot(typed), unit);
        if (said instanceof ScoreText.Value v) {
            if (v.value() > 0 || TestLines.scale(unit) == Scale.DIFFERENCE) {
                scores.add(new Score(row, p.column(), p, Optional.of(v.value()), v.resolution(), true, ""));
            } else {
                remark(row, p, Remark.Kind.UNREAD, "A score is above 0. Write n/a where there is none.");
            }
        } else if (said instanceof ScoreText.NoValue n) {
            state(row, p, n.ran(), n.words().isEmpty() ? "" : text);
        } else if (said instanceof ScoreText.NotUnderstood n) {
            remark(row, p, Remark.Kind.UNREAD, n.reason());
        }
    }

    private String withoutFoot(String text) {
        Matcher foot = FOOT.matcher(text);
        return foot.matches() && notes.containsKey(foot.group(2)) ? foot.group(1) : text;
    }

    private void state(int row, ColumnPlan p, boolean ran, String words) {
        scores.add(new Score(row, p.column(), p, Optional.empty(), 0, ran, words));
        remark(row, p, Remark.Kind.STATE, ran ? "A run that failed." : "A run that could not be begun.");
    }

    private void remark(int row, ColumnPlan p, Remark.Kind kind, String words) {
        remarks.add(new Remark(row, p.column(), kind, words));
    }

    private static boolean isNothing(String text) {
        return text.matches("(?i)[–—-]|n/?a|none|\\?|tbd|unknown");
    }

    /** Whether a cell says that there is no score, or why. */
    static boolean isState(String text) {
        return NOT_YET.matcher(text).matches()
                || NOTHING_RAN.matcher(text).matches()
                || text.matches("(?i)n/?a\\b.*|[–—-]|none|stopped\\b.*|could not run.*|not possible.*");
    }
}
