package yarrowmark.server.ledger.line;

import jakarta.validation.Valid;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Size;
import java.security.Principal;
import java.util.List;
import org.springdoc.core.annotations.ParameterObject;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import yarrowmark.server.ledger.record.ComputedBacklog;
import yarrowmark.server.ledger.record.Merging;
import yarrowmark.server.ledger.record.ReadingCorrections;
import yarrowmark.server.platform.Page;

@RestController
@RequestMapping("/api")
class LedgerController {
    record SetAsideBody(@NotBlank @Size(max = 500) String reason) {}

    /** @param expected how many readings the person saw counting */
    record SetAsideAllBody(@NotBlank @Size(max = 500) String reason, int expected) {}

    /** @param text the right value, as a person writes it */
    record CorrectBody(@NotBlank @Size(max = 400) String text, @NotBlank @Size(max = 400) String reason) {}

    record MergeBody(long into) {}

    private final ReadingCorrections readings;
    private final LedgerQuery query;
    private final LedgerPages pages;
    private final Merging merging;
    private final SetAsides setAsides;
    private final Corrections corrections;
    private final MarkedLines marks;
    private final ComputedBacklog backlog;

    LedgerController(
            ReadingCorrections readings,
            LedgerQuery query,
            LedgerPages pages,
            Merging merging,
            SetAsides setAsides,
            Corrections corrections,
            MarkedLines marks,
            ComputedBacklog backlog) {
        this.backlog = backlog;
        this.setAsides = setAsides;
        this.corrections = corrections;
        this.marks = marks;
        this.readings = readings;
        this.query = query;
        this.pages = pages;
        this.merging = merging;
    }

    @GetMapping("/ledger")
    Page<LedgerRow> ledger(
            @Valid @ParameterObject LedgerFilter filter,
            @RequestParam(defaultValue = "TIME") LedgerOrder sort,
            @RequestParam(defaultValue = "true") boolean falling,
            @RequestParam(defaultValue = "0") @Min(0) @Max(1_000_000) int page,
            @RequestParam(defaultValue = "50") @Min(1) @Max(200) int size) {
        return marks.marked(query.page(filter, sort, falling, page, size));
    }

    /** Everybody who carried something out. */
    /** Values that were added and are being computed for sessions of before. */
    @GetMapping("/ledger/backlog")
    List<ComputedBacklog.Backlog> backlog() {
        return backlog.going();
    }

    @GetMapping("/ledger/people")
    List<String> people() {
        return query.people();
    }

    /** Sets everything aside that counts in a view of the ledger. */
    @PostMapping("/ledger/set-aside")
    SetAsides.Done setAsideAll(
            @Valid @ParameterObject LedgerFilter filter, @Valid @RequestBody SetAsideAllBody body, Principal who) {
        return setAsides.setAside(filter, body.expected(), body.reason(), who.getName());
    }

    /** What was set aside at once counts again. */
    @DeleteMapping("/ledger/set-aside/{batch}")
    SetAsides.Done takeBackAll(@PathVariable long batch, Principal who) {
        return setAsides.takeBack(batch, who.getName());
    }

    @PostMapping("/readings/{id}/correct")
    LedgerPages.ReadingPage correct(@PathVariable long id, @Valid @RequestBody CorrectBody body, Principal who) {
        return pages.reading(corrections.correct(id, body.text(), body.reason(), who.getName()));
    }

    @GetMapping("/readings/{id}")
    LedgerPages.ReadingPage reading(@PathVariable long id) {
        return pages.reading(id);
    }

    @PostMapping("/readings/{id}/set-aside")
    LedgerPages.ReadingPage setAside(@PathVariable long id, @Valid @RequestBody SetAsideBody body, Principal who) {
        readings.setAside(id, body.reason(), who.getName());
        return pages.reading(id);
    }

    @DeleteMapping("/readings/{id}/set-aside")
    LedgerPages.ReadingPage takeBack(@PathVariable long id, Principal who) {
        readings.takeBack(id, who.getName());
        return pages.reading(id);
    }

    @GetMapping("/sessions/{id}")
    LedgerPages.SessionPage session(@PathVariable long id) {
        return pages.session(id);
    }

    @GetMapping("/configurations/{id}/sessions")
    List<LedgerPages.SessionPage> sessions(@PathVariable long id) {
        return pages.sessionsOf(id);
    }

    @GetMapping("/models/{id}/sessions")
    List<LedgerPages.SessionPage> sessionsOfModel(@PathVariable long id) {
        return pages.sessionsOfModel(id);
    }

    /** Moves the sessions of one configuration to another of the same unit with equal facts. */
    @PostMapping("/configurations/{id}/merge")
    void merge(@PathVariable long id, @RequestBody MergeBody body, Principal who) {
        merging.merge(id, body.into(), who.getName());
    }
}
