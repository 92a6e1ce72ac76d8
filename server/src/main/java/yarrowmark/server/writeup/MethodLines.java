package yarrowmark.server.writeup;

import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;
import org.springframework.jdbc.core.namedparam.NamedParameterJdbcTemplate;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** How configurations were measured, out of their sessions: suites and versions, runs, conditions, what was left out and why. */
@Service
class MethodLines {
    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("d MMM uuuu", Locale.ENGLISH);

    private final NamedParameterJdbcTemplate jdbc;

    MethodLines(NamedParameterJdbcTemplate jdbc) {
        this.jdbc = jdbc;
    }

    @Transactional(readOnly = true)
    public List<String> of(List<Long> configurations) {
        Map<String, List<Long>> ids = Map.of("ids", configurations);
        List<String> lines = new ArrayList<>();
        jdbc.query(
                "select s.name, v.version, v.mode, count(distinct r.test_id), count(*) from run r join test t on t.id = r.test_id join suite_version v on v.id = t.suite_version_id join suite s on s.id = v.suite_id where r.configuration_id in (:ids) and r.state = 'OK' group by s.name, v.version, v.mode, v.position order by s.name, v.position",
                ids,
                row -> {
                    String mode = row.getString(3).isEmpty() ? "" : ", " + row.getString(3);
                    lines.add(row.getString(1) + " " + row.getString(2) + mode + ": " + counted(row.getInt(4), "test")
                            + ", " + counted(row.getInt(5), "run") + ".");
                });
        sessions(ids, lines);
        people(ids, lines);
        checks(ids, lines);
        setAside(ids, lines);
        withoutScore(ids, lines);
        return lines;
    }

    private void sessions(Map<String, List<Long>> ids, List<String> lines) {
        jdbc.query(
                "select count(*), min(started_at), max(started_at), sum(on_mains), sum(not on_mains), min(room_temperature), max(room_temperature), sum(recording), sum(other_work) from session where configuration_id in (:ids) and exists (select 1 from run where run.session_id = session.id)",
                ids,
                row -> {
                    if (row.getInt(1) == 0) {
                        lines.add("Nothing was measured yet.");
                        return;
                    }
                    LocalDateTime first = row.getObject(2, LocalDateTime.class);
                    LocalDateTime last = row.getObject(3, LocalDateTime.class);
                    lines.add(counted(row.getInt(1), "session") + ", "
                            + (first.toLocalDate().equals(last.toLocalDate())
                                    ? "on " + DAY.format(first)
                                    : "from " + DAY.format(first) + " to " + DAY.format(last))
                            + ".");
                    List<String> conditions = new ArrayList<>();
                    add(conditions, row.getInt(4), "on mains");
                    add(conditions, row.getInt(5), "on battery");
                    row.getDouble(6);
                    if (!row.wasNull()) {
                        conditions.add(
                                row.getDouble(6) == row.getDouble(7)
                                        ? "at " + plain(row.getDouble(6)) + " °C"
                                        : "at " + plain(row.getDouble(6)) + " to " + plain(row.getDouble(7)) + " °C");
                    }
                    add(conditions, row.getInt(8), "while the screen was recorded");
                    add(conditions, row.getInt(9), "beside other work");
                    if (!conditions.isEmpty()) {
                        lines.add("Conditions, as far as they were noted: " + String.join(", ", conditions) + ".");
                    }
                });
    }

    private static void add(List<String> conditions, int sessions, String words) {
        if (sessions > 0) {
            conditions.add(counted(sessions, "session") + " " + words);
        }
    }

    private static String plain(double value) {
        return value == Math.rint(value) ? String.valueOf((long) value) : String.valueOf(value);
    }

    private void people(Map<String, List<Long>> ids, List<String> lines) {
        List<String> people = jdbc.queryForList(
                "select distinct person from run where configuration_id in (:ids) and person is not null order by person",
                ids,
                String.class);
        if (!people.isEmpty()) {
            lines.add("Measured by " + String.join(", ", people) + ".");
        }
    }

    private void checks(Map<String, List<Long>> ids, List<String> lines) {
        List<String> ticked = jdbc.queryForList(
                "select c.text from session_check c join session s on s.id = c.session_id where s.configuration_id in (:ids) and c.ticked group by c.text order by min(c.position), c.text limit 12",
                ids,
                String.class);
        if (!ticked.isEmpty()) {
            lines.add("Before the first run: "
                    + ticked.stream()
                            .map(t -> t.substring(0, 1).toLowerCase(Locale.ROOT) + t.substring(1))
                            .collect(Collectors.joining("; "))
                    + ".");
        }
    }

    private void setAside(Map<String, List<Long>> ids, List<String> lines) {
        jdbc.query(
                "select a.reason, count(distinct a.reading_id) from set_aside a join reading r on r.id = a.reading_id where r.configuration_id in (:ids) and a.taken_back_at is null group by a.reason order by 2 desc, 1 limit 12",
                ids,
                row -> {
                    lines.add("Left out, " + counted(row.getInt(2), "reading") + ": " + row.getString(1) + ".");
                });
    }

    private void withoutScore(Map<String, List<Long>> ids, List<String> lines) {
        Map<String, List<String>> why = new LinkedHashMap<>();
        jdbc.query(
                "select t.name, r.state, coalesce(r.reason_words, ''), count(*) from run r join test t on t.id = r.test_id where r.configuration_id in (:ids) and r.state in ('FAILED', 'COULD_NOT_RUN') group by t.name, r.state, r.reason_words order by t.name limit 12",
                ids,
                row -> {
                    why.computeIfAbsent(row.getString(1), t -> new ArrayList<>())
                            .add((row.getString(2).equals("FAILED") ? "failed" : "could not run")
                                    + (row.getString(3).isEmpty() ? "" : " (" + row.getString(3) + ")")
                                    + (row.getInt(4) > 1 ? " " + row.getInt(4) + " times" : ""));
                });
        why.forEach((test, how) -> lines.add(test + " " + String.join(", ", how) + "."));
    }

    private static String counted(int n, String what) {
        return n + " " + what + (n == 1 ? "" : "s");
    }
}
