package yarrowmark.server.reference;

import jakarta.validation.Valid;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Size;
import java.security.Principal;
import java.time.LocalDate;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

@RestController
@RequestMapping("/api")
class ReferenceController {
    /** @param text the value as a person writes it. @param results number of results behind it */
    record ReferenceBody(
            long metricId,
            @NotBlank @Size(max = 200) String text,
            @NotBlank @Size(max = 300) String source,
            @Nullable LocalDate publishedOn,
            @Nullable @Min(1) Integer results) {}

    private final References references;

    ReferenceController(References references) {
        this.references = references;
    }

    @GetMapping("/models/{id}/references")
    List<References.ReferenceRow> ofModel(@PathVariable long id) {
        return references.ofModel(id);
    }

    @PostMapping("/models/{id}/references")
    List<References.ReferenceRow> add(@PathVariable long id, @Valid @RequestBody ReferenceBody body, Principal who) {
        references.add(
                id,
                new References.NewReference(
                        body.metricId(), body.text(), body.source(), body.publishedOn(), body.results()),
                who.getName());
        return references.ofModel(id);
    }

    @DeleteMapping("/references/{id}")
    void remove(@PathVariable long id, Principal who) {
        references.remove(id, true, who.getName());
    }

    @PostMapping("/references/{id}/restore")
    void restore(@PathVariable long id, Principal who) {
        references.remove(id, false, who.getName());
    }
}
