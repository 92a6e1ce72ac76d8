package yarrowmark.server.ledger.line;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.security.Principal;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import yarrowmark.server.ledger.record.SessionLifecycle;
import yarrowmark.server.ledger.sample.CountedSessions;
import yarrowmark.server.shelf.ShelfPages;
import yarrowmark.server.shelf.configuration.ConfigurationRow;

/** Sessions that were never finished: they are named, and count as soon as somebody says so. */
@RestController
@RequestMapping("/api/sessions")
class UnfinishedController {
    /** @param measured tests that have a run. @param planned absent where it is not known how many there were to be */
    record UnfinishedSession(
            long id, ConfigurationRow configuration, Instant startedAt, int measured, @Nullable Integer planned) {}

    record CountsBody(@NotNull Boolean counts) {}

    private final CountedSessions counted;
    private final SessionLifecycle lifecycle;
    private final ShelfPages shelf;

    UnfinishedController(CountedSessions counted, SessionLifecycle lifecycle, ShelfPages shelf) {
        this.counted = counted;
        this.lifecycle = lifecycle;
        this.shelf = shelf;
    }

    @GetMapping("/unfinished")
    List<UnfinishedSession> unfinished() {
        List<CountedSessions.Unfinished> all = counted.unfinished();
        Map<Long, ConfigurationRow> rows = shelf
                .configurations(all.stream()
                        .map(CountedSessions.Unfinished::configurationId)
                        .distinct()
                        .toList())
                .stream()
                .collect(Collectors.toMap(ConfigurationRow::id, Function.identity()));
        return all.stream()
                .flatMap(u -> {
                    ConfigurationRow row = rows.get(u.configurationId());
                    return row == null || row.retired()
                            ? Stream.<UnfinishedSession>empty()
                            : Stream.of(
                                    new UnfinishedSession(u.session(), row, u.startedAt(), u.measured(), u.planned()));
                })
                .toList();
    }

    @PutMapping("/{id}/counted")
    void count(@PathVariable long id, @Valid @RequestBody CountsBody body, Principal who) {
        lifecycle.count(id, body.counts(), who.getName());
    }
}
