package yarrowmark.server.ledger.mark;

import java.time.Clock;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.history.ChangeLog;

/** Marks are suggestions: keeps who decided against one, and why. */
@Service
class MarkOverrules {
    private static final String SUBJECT = "configuration";

    private final MarkOverruleRepository overrules;
    private final ChangeLog changes;
    private final Clock clock;

    MarkOverrules(MarkOverruleRepository overrules, ChangeLog changes, Clock clock) {
        this.overrules = overrules;
        this.changes = changes;
        this.clock = clock;
    }

    /** Reasons by sample, of what is overruled now. */
    @Transactional(readOnly = true)
    public Map<ReadingMarks.HeldSample, String> open() {
        Map<ReadingMarks.HeldSample, String> open = new HashMap<>();
        overrules
                .findByTakenBackAtIsNull()
                .forEach(o -> open.put(
                        new ReadingMarks.HeldSample(o.configurationId, o.metricId), o.reason + " (" + o.person + ")"));
        return open;
    }

    @Transactional
    void overrule(ReadingMarks.HeldSample sample, String reason, String person) {
        if (!overrules
                .findByConfigurationIdAndMetricIdAndTakenBackAtIsNull(sample.configurationId(), sample.metricId())
                .isEmpty()) {
            throw Problem.conflict("overruled-already", "This mark is overruled already.");
        }
        MarkOverrule o = new MarkOverrule();
        o.configurationId = sample.configurationId();
        o.metricId = sample.metricId();
        o.reason = reason.strip();
        o.person = person;
        o.at = clock.instant();
        overrules.save(o);
        changes.note(
                person,
                SUBJECT,
                sample.configurationId(),
                "mark overruled",
                "held at the display's rate",
                "metric " + sample.metricId() + " counts",
                o.reason);
    }

    @Transactional
    void takeBack(ReadingMarks.HeldSample sample, String person) {
        List<MarkOverrule> open = overrules.findByConfigurationIdAndMetricIdAndTakenBackAtIsNull(
                sample.configurationId(), sample.metricId());
        if (open.isEmpty()) {
            throw Problem.conflict("not-overruled", "This mark is not overruled.");
        }
        open.forEach(o -> {
            o.takenBackAt = clock.instant();
            o.takenBackBy = person;
        });
        changes.note(
                person,
                SUBJECT,
                sample.configurationId(),
                "mark overruled",
                "metric " + sample.metricId() + " counts",
                null);
    }
}
