package yarrowmark.server.bench;

import static yarrowmark.server.platform.Require.require;

import java.time.Clock;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.server.ledger.record.LedgerSessions;
import yarrowmark.server.plan.PlanRow;
import yarrowmark.server.plan.Plans;
import yarrowmark.server.shelf.ShelfPages;
import yarrowmark.server.shelf.configuration.ConfigurationRow;

/** Which devices are due for their next session: plans that say "on n days", and whoever was measured on fewer. */
@Service
class DueSessions {
    /**
     * @param days   on which it was measured with the plan
     * @param of     that the plan has
     * @param last   the latest of them
     * @param today  whether that is today: its next session is another day's
     */
    record Due(
            long planId,
            String plan,
            ConfigurationRow configuration,
            int days,
            int of,
            LocalDate last,
            boolean today) {}

    private final Plans plans;
    private final LedgerSessions sessions;
    private final ShelfPages shelf;
    private final Clock clock;

    DueSessions(Plans plans, LedgerSessions sessions, ShelfPages shelf, Clock clock) {
        this.plans = plans;
        this.sessions = sessions;
        this.shelf = shelf;
        this.clock = clock;
    }

    /** Those that can be measured today first, the longest ago first. */
    @Transactional(readOnly = true)
    public List<Due> all() {
        LocalDate today = LocalDate.now(clock.withZone(ZoneOffset.UTC));
        List<PlanRow> several =
                plans.all().stream().filter(p -> p.days() != null).toList();
        if (several.isEmpty()) {
            return List.of();
        }
        Map<String, List<LedgerSessions.MeasuredDays>> measured =
                sessions.days(several.stream().map(PlanRow::name).toList()).stream()
                        .collect(Collectors.groupingBy(LedgerSessions.MeasuredDays::plan));
        Set<Long> ids = new LinkedHashSet<>();
        measured.values().forEach(all -> all.forEach(d -> ids.add(d.configurationId())));
        Map<Long, ConfigurationRow> rows =
                shelf.configurations(ids).stream().collect(Collectors.toMap(ConfigurationRow::id, c -> c));
        List<Due> due = new ArrayList<>();
        for (PlanRow plan : several) {
            for (LedgerSessions.MeasuredDays d : measured.getOrDefault(plan.name(), List.of())) {
                ConfigurationRow c = rows.get(d.configurationId());
                if (c != null && !c.retired() && d.days() < require(plan.days())) {
                    due.add(new Due(
                            plan.id(),
                            plan.name(),
                            c,
                            d.days(),
                            require(plan.days()),
                            d.last(),
                            d.last().equals(today)));
                }
            }
        }
        due.sort(Comparator.comparing(Due::today).thenComparing(Due::last));
        return due;
    }
}
