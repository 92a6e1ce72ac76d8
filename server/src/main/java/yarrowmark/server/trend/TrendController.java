package yarrowmark.server.trend;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Pattern;
import jakarta.validation.constraints.Size;
import java.security.Principal;
import org.springdoc.core.annotations.ParameterObject;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

@RestController
class TrendController {
    /** @param step its key, as an answer has it */
    record EventBody(
            long model,
            @NotBlank @Pattern(regexp = "c\\d{1,18}|d\\d{1,18}-\\d{4}-\\d\\d-\\d\\d") String step,
            @NotBlank @Size(max = 200) String words) {}

    private final TrendService trends;
    private final TrendEvents events;

    TrendController(TrendService trends, TrendEvents events) {
        this.trends = trends;
        this.events = events;
    }

    @GetMapping("/api/trends")
    Trends trends(@Valid @ParameterObject TrendAsk ask) {
        return trends.of(ask);
    }

    /** Pins something to a step that no fact says. */
    @PostMapping("/api/trends/events")
    void pin(@Valid @RequestBody EventBody body, Principal who) {
        events.pin(body.model(), body.step(), body.words(), who.getName());
    }

    @DeleteMapping("/api/trends/events/{id}")
    void remove(@PathVariable long id, Principal who) {
        events.remove(id, who.getName());
    }
}
