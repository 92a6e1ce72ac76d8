package yarrowmark.server.ledger.mark;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Size;
import java.security.Principal;
import java.util.List;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.shelf.ShelfPages;

/** Deciding against the mark that a display holds a sample. */
@RestController
@RequestMapping("/api/configurations/{configurationId}/metrics/{metricId}/held-counts")
class MarkController {
    record OverruleBody(@NotBlank @Size(max = 400) String reason) {}

    private final MarkOverrules overrules;
    private final ShelfPages shelf;
    private final Catalog catalog;

    MarkController(MarkOverrules overrules, ShelfPages shelf, Catalog catalog) {
        this.overrules = overrules;
        this.shelf = shelf;
        this.catalog = catalog;
    }

    @PutMapping
    void overrule(
            @PathVariable long configurationId,
            @PathVariable long metricId,
            @RequestBody @Valid OverruleBody body,
            Principal who) {
        overrules.overrule(sample(configurationId, metricId), body.reason(), who.getName());
    }

    @DeleteMapping
    void takeBack(@PathVariable long configurationId, @PathVariable long metricId, Principal who) {
        overrules.takeBack(sample(configurationId, metricId), who.getName());
    }

    private ReadingMarks.HeldSample sample(long configurationId, long metricId) {
        if (shelf.configurations(List.of(configurationId)).isEmpty()) {
            throw Problem.notFound("configuration", configurationId);
        }
        if (catalog.metrics().stream().noneMatch(m -> m.id() == metricId)) {
            throw Problem.notFound("metric", metricId);
        }
        return new ReadingMarks.HeldSample(configurationId, metricId);
    }
}
