package yarrowmark.server.ledger.line;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Timestamp;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.namedparam.MapSqlParameterSource;
import org.springframework.jdbc.core.namedparam.NamedParameterJdbcTemplate;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.server.ledger.mark.ReadingMarks;
import yarrowmark.server.ledger.record.ReadingSamples;
import yarrowmark.server.ledger.record.ReadingSamplesRepository;

/** The single readings of some configurations on one metric, also those that were set aside. */
@Service
public class ReadingLines {
    /** Of one configuration; a sample of more says nothing more when it is looked at one by one. */
    private static final int MOST = 200;
    /** Of many metrics together; more dots than that are a blot. */
    private static final int MOST_VALUES = 20_000;

    /**
     * @param asideReason present while it is set aside
     * @param evidence    files that were kept with its session
     * @param conditions  under which the session ran, in words; empty where nothing is known
     */
    public record ReadingLine(
            long id,
            long configurationId,
            long sessionId,
            int runNumber,
            double value,
            double resolution,
            Instant finishedAt,
            @Nullable String person,
            @Nullable String asideReason,
            int evidence,
            List<String> conditions,
            List<ReadingMarks.ReadingMark> marks) {
        private ReadingLine withEvidence(int files) {
            return new ReadingLine(
                    id,
                    configurationId,
                    sessionId,
                    runNumber,
                    value,
                    resolution,
                    finishedAt,
                    person,
                    asideReason,
                    files,
                    conditions,
                    marks);
        }
    }

    private final NamedParameterJdbcTemplate jdbc;
    private final ReadingMarks marks;
    private final ReadingSamplesRepository points;
    private final SessionFiles files;

    ReadingLines(
            NamedParameterJdbcTemplate jdbc, ReadingMarks marks, ReadingSamplesRepository points, SessionFiles files) {
        this.files = files;
        this.jdbc = jdbc;
        this.marks = marks;
        this.points = points;
    }

    /** By configuration, in the order they were made; the last {@value #MOST} of each. */
    @Transactional(readOnly = true)
    public Map<Long, List<ReadingLine>> of(Collection<Long> metricIds, Collection<Long> configurationIds) {
        Set<ReadingMarks.HeldSample> wanted = new HashSet<>();
        configurationIds.forEach(c -> metricIds.forEach(m -> wanted.add(new ReadingMarks.HeldSample(c, m))));
        Map<Long, List<ReadingMarks.ReadingMark>> marked = marks.ofSamples(wanted);
        Map<Long, List<ReadingLine>> lines = new HashMap<>();
        jdbc.query(
                """
                select rd.id, rd.configuration_id, r.session_id, r.run_number, rd.value, rd.resolution, r.finished_at, r.person, a.reason, r.disturbed,
                se.on_mains, se.battery_level, se.recording, se.other_work, se.room_temperature
                from reading rd join run r on r.id = rd.run_id join session se on se.id = r.session_id left join set_aside a on a.reading_id = rd.id and a.taken_back_at is null
                where rd.configuration_id in (:configurations) and rd.metric_id in (:metrics) order by rd.id""",
                new MapSqlParameterSource("configurations", configurationIds).addValue("metrics", metricIds),
                row -> {
                    long id = row.getLong("id");
                    Timestamp at = row.getTimestamp("finished_at");
                    lines.computeIfAbsent(row.getLong("configuration_id"), c -> new ArrayList<>())
                            .add(new ReadingLine(
                                    id,
                                    row.getLong("configuration_id"),
                                    row.getLong("session_id"),
                                    row.getInt("run_number"),
                                    row.getDouble("value"),
                                    row.getDouble("resolution"),
                                    at.toInstant(),
                                    row.getString("person"),
                                    row.getString("reason"),
                                    0,
                                    conditions(row),
                                    ReadingMarks.withDisturbance(
                                            marked.getOrDefault(id, List.of()), row.getString("disturbed"))));
                });
        lines.replaceAll((c, all) -> all.size() <= MOST ? all : all.subList(all.size() - MOST, all.size()));
        Map<Long, Integer> kept = files.count(lines.values().stream()
                .flatMap(List::stream)
                .map(ReadingLine::sessionId)
                .collect(Collectors.toSet()));
        lines.replaceAll((c, all) -> all.stream()
                .map(l -> l.withEvidence(kept.getOrDefault(l.sessionId(), 0)))
                .toList());
        return lines;
    }

    /** A value that counts. */
    public record CountedValue(long metricId, long sessionId, double value) {}

    /** What counts, without anything that is told about it, in the order it was made; the last {@value #MOST_VALUES}. */
    @Transactional(readOnly = true)
    public List<CountedValue> counted(Collection<Long> metricIds, Collection<Long> configurationIds) {
        if (metricIds.isEmpty() || configurationIds.isEmpty()) {
            return List.of();
        }
        List<CountedValue> values = new ArrayList<>(jdbc.query(
                """
                select rd.metric_id, r.session_id, rd.value from reading rd join run r on r.id = rd.run_id
                where rd.configuration_id in (:configurations) and rd.metric_id in (:metrics)
                and not exists (select 1 from set_aside a where a.reading_id = rd.id and a.taken_back_at is null)
                order by rd.id desc limit :most""",
                new MapSqlParameterSource("configurations", configurationIds)
                        .addValue("metrics", metricIds)
                        .addValue("most", MOST_VALUES),
                (row, i) ->
                        new CountedValue(row.getLong("metric_id"), row.getLong("session_id"), row.getDouble("value"))));
        Collections.reverse(values);
        return values;
    }

    private static List<String> conditions(ResultSet row) throws SQLException {
        List<String> words = new ArrayList<>();
        if (row.getObject("on_mains") != null) {
            double level = row.getDouble("battery_level");
            words.add(
                    row.getBoolean("on_mains")
                            ? "on mains"
                            : level > 0
                                    ? String.format(Locale.ROOT, "on battery, %.0f %%", 100 * level)
                                    : "on battery");
        }
        if (row.getBoolean("recording")) {
            words.add("recording the screen");
        }
        if (row.getBoolean("other_work")) {
            words.add("other work going on");
        }
        if (row.getObject("room_temperature") != null) {
            words.add(String.format(Locale.ROOT, "%.1f °C in the room", row.getDouble("room_temperature")));
        }
        return words;
    }

    /** The points behind readings, as they are kept: x and y in turn, or the times of frames. */
    @Transactional(readOnly = true)
    public Map<Long, double[]> points(Collection<Long> readingIds) {
        return points.findAllById(readingIds).stream()
                .collect(Collectors.toMap(ReadingSamples::readingId, ReadingSamples::values));
    }
}
