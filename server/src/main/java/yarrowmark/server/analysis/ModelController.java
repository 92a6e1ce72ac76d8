package yarrowmark.server.analysis;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Size;
import java.security.Principal;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import yarrowmark.server.shelf.Claims;

@RestController
@RequestMapping("/api/models/{id}")
class ModelController {
    /**
     * @param factKey  of the vocabulary, where a fact is claimed
     * @param metricId where a score is claimed
     * @param text     as typed, with its unit
     */
    record ClaimBody(
            @Nullable @Size(max = 80) String factKey,
            @Nullable Long metricId,
            @NotBlank @Size(max = 500) String text,
            @NotBlank(message = "must say where this is claimed") @Size(max = 300) String source) {}

    private final ModelOverview overview;
    private final Claims claims;

    ModelController(ModelOverview overview, Claims claims) {
        this.overview = overview;
        this.claims = claims;
    }

    @GetMapping("/places")
    List<ModelOverview.BestPlace> places(@PathVariable long id) {
        return overview.bestPlaces(id);
    }

    @GetMapping("/claims")
    List<ModelOverview.ClaimCheck> claims(@PathVariable long id) {
        return overview.claims(id);
    }

    @PostMapping("/claims")
    List<ModelOverview.ClaimCheck> add(@PathVariable long id, @Valid @RequestBody ClaimBody body, Principal who) {
        claims.add(id, body.factKey(), body.metricId(), body.text(), body.source(), who.getName());
        return overview.claims(id);
    }

    @DeleteMapping("/claims/{claimId}")
    List<ModelOverview.ClaimCheck> remove(@PathVariable long id, @PathVariable long claimId, Principal who) {
        claims.remove(id, claimId, who.getName());
        return overview.claims(id);
    }
}
