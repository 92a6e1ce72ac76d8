package yarrowmark.server.ledger.sheet;

import jakarta.validation.Valid;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.security.Principal;
import java.time.Clock;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import yarrowmark.core.setup.FactReader;
import yarrowmark.core.setup.FactVocabulary;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.ledger.record.Ledger;
import yarrowmark.server.ledger.record.NewSession;
import yarrowmark.server.ledger.record.SessionLifecycle;
import yarrowmark.server.ledger.record.SessionState;
import yarrowmark.server.ledger.record.TestByHand;
import yarrowmark.server.platform.PlainLine;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.shelf.Checklists;
import yarrowmark.server.shelf.ShelfPages;

/** Sessions that a person carries out, and the scores typed into them. */
@RestController
@RequestMapping("/api/sessions")
class SheetController {
    /** @param roomTemperature as a person writes it */
    record SessionBody(
            long configurationId,
            @NotBlank @PlainLine @Size(max = 120) String name,
            @NotEmpty @Size(max = 300) List<@NotNull Long> testIds,
            @Min(1) @Max(30) int runs,
            @Nullable Boolean onMains,
            @Nullable @Size(max = 40) String roomTemperature,
            @Nullable Boolean recording,
            @Nullable Boolean otherWork,
            @Nullable @Size(max = 1000) String remarks,
            @Nullable @Size(max = 40) List<@NotBlank @PlainLine @Size(max = 200) String> ticked,
            @Nullable @Size(max = 300) List<@Valid @NotNull AsPlanned> asPlanned) {}

    /** What a plan says of a test. @param runs as many as the session has where there is none */
    record AsPlanned(long testId, @Nullable @Min(1) @Max(30) Integer runs, @Nullable @Size(max = 500) String todo) {}

    /** @param byStopwatch whether a hand started and stopped the time */
    record ScoreBody(long testId, int run, @NotNull @Size(max = 400) String text, boolean byStopwatch) {}

    /** @param timestamps for frame times: whether the numbers are points in time rather than lengths */
    record PointsBody(long testId, int run, @NotNull @Size(max = 1_900_000) String text, boolean timestamps) {}

    record UndoScoreBody(long testId, int run) {}

    private final SessionLifecycle lifecycle;
    private final ScoreSheet sheets;
    private final ScoreEntry entry;
    private final ScoreLook looks;
    private final ShelfPages shelf;
    private final Checklists checklists;
    private final Catalog catalog;
    private final Clock clock;

    SheetController(
            SessionLifecycle lifecycle,
            ScoreSheet sheets,
            ScoreEntry entry,
            ScoreLook looks,
            ShelfPages shelf,
            Checklists checklists,
            Catalog catalog,
            Clock clock) {
        this.lifecycle = lifecycle;
        this.sheets = sheets;
        this.entry = entry;
        this.looks = looks;
        this.shelf = shelf;
        this.checklists = checklists;
        this.catalog = catalog;
        this.clock = clock;
    }

    @PostMapping
    ScoreSheet.Sheet open(@Valid @RequestBody SessionBody body, Principal who) {
        var configuration = shelf.configuration(body.configurationId());
        if (configuration.mergedInto() != null) {
            throw Problem.conflict(
                    "merged-away", "This configuration turned out to be the same as another one. Measure that one.");
        }
        if (catalog.tests(body.testIds()).size()
                != body.testIds().stream().distinct().count()) {
            throw Problem.invalid(
                    "unknown-test", "One of the tests is not in the catalogue any more. Choose them again.");
        }
        List<String> ticked = body.ticked() == null ? List.of() : body.ticked();
        List<Ledger.Check> checks = checklists
                .items(configuration.configuration().deviceClass())
                .stream()
                .map(text -> new Ledger.Check(text, ticked.contains(text)))
                .toList();
        List<TestByHand> tests = byHand(body);
        long id = lifecycle.open(new NewSession(
                body.configurationId(),
                body.name().strip(),
                body.runs(),
                0,
                body.onMains(),
                null,
                clock.instant(),
                checks,
                who.getName(),
                new Ledger.ByHand(
                        tests, temperature(body.roomTemperature()), body.recording(), body.otherWork(), body.remarks()),
                tests.size()));
        return sheets.sheet(id);
    }

    private static @Nullable Double temperature(@Nullable String typed) {
        if (typed == null || typed.isBlank()) {
            return null;
        }
        FactReader.Reading read = FactReader.read(FactVocabulary.entry("room.temperature"), typed);
        if (read instanceof FactReader.Understood u) {
            return Double.valueOf(u.value());
        }
        throw Problem.invalid("room-temperature", "Room temperature: " + ((FactReader.NotUnderstood) read).reason());
    }

    private static List<TestByHand> byHand(SessionBody body) {
        List<AsPlanned> planned = body.asPlanned() == null ? List.of() : body.asPlanned();
        return body.testIds().stream()
                .distinct()
                .map(id -> planned.stream()
                        .filter(p -> p.testId() == id)
                        .findFirst()
                        .map(p -> new TestByHand(id, p.runs(), p.todo()))
                        .orElse(new TestByHand(id, null, null)))
                .toList();
    }

    @GetMapping("/{id}/sheet")
    ScoreSheet.Sheet sheet(@PathVariable long id) {
        return sheets.sheet(id);
    }

    /** How a text would be understood, where the value would stand, and whether it looks like a slip. Nothing is stored. */
    @PostMapping("/{id}/look")
    ScoreLook.Look look(@PathVariable long id, @Valid @RequestBody ScoreBody body) {
        return looks.look(id, body.testId(), body.run(), body.text());
    }

    @PostMapping("/{id}/scores")
    ScoreSheet.Sheet type(@PathVariable long id, @Valid @RequestBody ScoreBody body, Principal who) {
        return entry.type(id, body.testId(), body.run(), body.text(), body.byStopwatch(), who.getName());
    }

    /** Many points for one run: a curve as pairs, or frame times. */
    @PostMapping("/{id}/points")
    ScoreSheet.Sheet points(@PathVariable long id, @Valid @RequestBody PointsBody body, Principal who) {
        return entry.points(id, body.testId(), body.run(), body.text(), body.timestamps(), who.getName());
    }

    @PostMapping("/{id}/undo")
    ScoreSheet.Sheet undo(@PathVariable long id, @Valid @RequestBody UndoScoreBody body, Principal who) {
        return entry.undo(id, body.testId(), body.run(), who.getName());
    }

    @PostMapping("/{id}/end")
    ScoreSheet.Sheet end(@PathVariable long id) {
        lifecycle.end(id, SessionState.DONE, clock.instant());
        return sheets.sheet(id);
    }

    @PostMapping("/{id}/resume")
    ScoreSheet.Sheet resume(@PathVariable long id) {
        lifecycle.resume(id);
        return sheets.sheet(id);
    }
}
