package yarrowmark.server.bench;

import static yarrowmark.server.platform.Require.require;

import java.time.Duration;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import yarrowmark.core.plan.PlanTime;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.TestRow;
import yarrowmark.server.ledger.record.Ledger;
import yarrowmark.server.ledger.record.LedgerSessions;
import yarrowmark.server.ledger.record.RunState;
import yarrowmark.server.plan.PlanItem;
import yarrowmark.server.plan.PlanRow;
import yarrowmark.server.plan.Plans;
import yarrowmark.server.shelf.ShelfPages;
import yarrowmark.server.shelf.configuration.ConfigurationRow;

/** Puts a seat together with its plan, its runs and its configuration. */
@Component
class Lanes {
    private final Plans plans;
    private final Catalog catalog;
    private final Ledger ledger;
    private final LedgerSessions sessions;
    private final ShelfPages shelf;
    private final LateRuns late;
    private final LiveSensors live;

    Lanes(
            Plans plans,
            Catalog catalog,
            Ledger ledger,
            LedgerSessions sessions,
            ShelfPages shelf,
            LateRuns late,
            LiveSensors live) {
        this.live = live;
        this.late = late;
        this.plans = plans;
        this.catalog = catalog;
        this.ledger = ledger;
        this.sessions = sessions;
        this.shelf = shelf;
    }

    List<Lane> of(Collection<Seat> seats) {
        List<Long> sessionIds =
                seats.stream().map(Seat::sessionId).filter(Objects::nonNull).toList();
        Map<Long, List<Ledger.RunPart>> runs =
                ledger.runs(sessionIds).stream().collect(Collectors.groupingBy(Ledger.RunPart::sessionId));
        Map<Long, Long> configurationOf = sessions.configurations(sessionIds);
        Map<Long, ConfigurationRow> configurations = shelf.configurations(configurationOf.values()).stream()
                .collect(Collectors.toMap(ConfigurationRow::id, c -> c));
        Map<Long, PlanRow> planById = plans
                .plans(seats.stream().map(Seat::planId).distinct().toList())
                .stream()
                .collect(Collectors.toMap(PlanRow::id, p -> p));
        Map<Long, TestRow> known = catalog
                .tests(planById.values().stream()
                        .flatMap(p -> p.items().stream())
                        .map(PlanItem::testId)
                        .distinct()
                        .toList())
                .stream()
                .collect(Collectors.toMap(TestRow::id, t -> t));
        Map<Long, Integer> waiting = late.count(seats.stream().map(Seat::id).toList());
        return seats.stream()
                .map(seat -> lane(
                        seat,
                        require(planById, seat.planId()),
                        known,
                        runs.getOrDefault(seat.sessionId(), List.of()),
                        configurations.get(configurationOf.get(seat.sessionId())),
                        waiting.getOrDefault(seat.id(), 0),
                        live.of(seat.id())))
                .toList();
    }

    private static Lane lane(
            Seat seat,
            PlanRow plan,
            Map<Long, TestRow> known,
            List<Ledger.RunPart> runs,
            @Nullable ConfigurationRow configuration,
            int late,
            List<LiveSensors.Line> sensors) {
        List<Lane.LaneTest> tests = plan.items(seat.mustOnly()).stream()
                .map(i -> test(i, require(known, i.testId()), plan, seat, runs))
                .toList();
        int left = (int) tests.stream()
                .flatMap(t -> t.runs().stream())
                .filter(r -> r.state() == null || r.state() == RunState.STOPPED)
                .count();
        List<Long> durations = runs.stream()
                .filter(r -> r.state() == RunState.OK)
                .map(r -> (long) r.durationMs())
                .toList();
        long msLeft = seat.phase().isOver()
                ? 0
                : new PlanTime(
                                tests.size(),
                                seat.runs(),
                                Duration.ofMillis(seat.timedMs()),
                                Duration.ofMillis(seat.pauseMs()))
                        .left(left, durations)
                        .toMillis();
        return new Lane(
                seat.id(),
                seat.code(),
                seat.createdAt(),
                seat.expiresAt(),
                plan.name(),
                seat.runs(),
                seat.timedMs(),
                seat.pauseMs(),
                seat.device(),
                seat.sessionId(),
                configuration,
                tests,
                seat.phase(),
                seat.phaseTestId(),
                seat.phaseRun(),
                seat.phaseUntil(),
                seat.command(),
                seat.lastHeardAt(),
                msLeft,
                late,
                seat.phase().isOver() ? List.of() : sensors);
    }

    /** The last attempt speaks for a run; a test that cannot run fills all its places with its one answer. */
    private static Lane.LaneTest test(PlanItem item, TestRow test, PlanRow plan, Seat seat, List<Ledger.RunPart> runs) {
        int least = item.runs() == null ? seat.runs() : item.runs();
        int done = runs.stream()
                .filter(r -> r.testId() == item.testId())
                .mapToInt(Ledger.RunPart::runNumber)
                .max()
                .orElse(0);
        // Where runs go on until the mean is known, there are as many places as were needed so far.
        int planned = plan.asLongAsItTakes(item) ? Math.max(least, done) : least;
        List<Ledger.RunPart> mine =
                runs.stream().filter(r -> r.testId() == item.testId()).toList();
        var cannot =
                mine.stream().filter(r -> r.state() == RunState.COULD_NOT_RUN).findFirst();
        List<Lane.LaneRun> places = new ArrayList<>();
        for (int number = 1; number <= planned; number++) {
            int n = number;
            List<Ledger.RunPart> attempts =
                    mine.stream().filter(r -> r.runNumber() == n).toList();
            Ledger.RunPart last = attempts.isEmpty() ? cannot.orElse(null) : attempts.get(attempts.size() - 1);
            places.add(
                    last == null
                            ? new Lane.LaneRun(number, null, null, null, 0)
                            : new Lane.LaneRun(
                                    number, last.state(), last.reason(), last.reasonWords(), attempts.size()));
        }
        return new Lane.LaneTest(item.testId(), test.name(), places, !test.byItself(), item.todo(), item.pauseUntil());
    }
}
