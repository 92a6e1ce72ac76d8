package yarrowmark.server.trend;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Pattern;
import jakarta.validation.constraints.Size;
import java.security.Principal;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springdoc.core.annotations.ParameterObject;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import yarrowmark.server.platform.PlainLine;

@RestController
class TrendController {
    /** @param step its key, as an answer has it */
    record EventBody(
            long model,
            @NotBlank @Pattern(regexp = "c\\d{1,18}|d\\d{1,18}-\\d{4}-\\d\\d-\\d\\d") String step,
            @NotBlank @PlainLine @Size(max = 200) String words) {}

    private final TrendService trends;
    private final TogetherService together;
    private final TrendEvents events;
    private final TellingTrends telling;

    TrendController(TrendService trends, TogetherService together, TrendEvents events, TellingTrends telling) {
        this.telling = telling;
        this.trends = trends;
        this.together = together;
        this.events = events;
    }

    @GetMapping("/api/trends")
    Trends trends(@Valid @ParameterObject TrendAsk ask) {
        return trends.of(ask);
    }

    /**
     * Several units or models along the same fact.
     *
     * @param with   "model" or "model-unit" of each that stands beside the one asked for
     * @param metric one test instead of the overall
     */
    @GetMapping("/api/trends/together")
    Together together(
            @Valid @ParameterObject TrendAsk ask,
            @RequestParam @Size(min = 1, max = 5) List<@Pattern(regexp = "\\d{1,18}(-\\d{1,18})?") String> with,
            @RequestParam(required = false) @Nullable Long metric) {
        return together.of(ask, with, metric);
    }

    /** Each device's overall along what it varies in most, the most telling first. */
    @GetMapping("/api/trends/telling")
    List<TellingTrends.TellingTrend> telling() {
        return telling.all();
    }

    /** The single values behind a trend's points. */
    @GetMapping("/api/trends/readings")
    List<TrendService.DotsPart> readings(@Valid @ParameterObject TrendAsk ask) {
        return trends.dots(ask);
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
