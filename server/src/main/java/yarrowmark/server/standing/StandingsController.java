package yarrowmark.server.standing;

import jakarta.validation.Valid;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.security.Principal;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springdoc.core.annotations.ParameterObject;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.context.request.WebRequest;
import yarrowmark.server.catalog.PurposeWeighing;
import yarrowmark.server.platform.Page;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.change.Revision;

@RestController
class StandingsController {
    /**
     * @param caption what the sentence says
     * @param title   what the reviewer calls it
     * @param words   what they say of it
     * @param listed  whether the lab's front page leads to it
     * @param living  whether it shows what is measured then, not what is measured now
     */
    record FreezeBody(
            @NotBlank @Size(max = 2_000) String caption,
            @Nullable @Size(max = 120) String title,
            @Nullable @Size(max = 4_000) String words,
            @Nullable Boolean listed,
            @Nullable Boolean living) {
        FrozenStandings.Saved saved() {
            return new FrozenStandings.Saved(
                    title, words, caption, Boolean.TRUE.equals(listed), Boolean.TRUE.equals(living));
        }
    }

    record ChangedKept(boolean listed, boolean living) {}

    /** What weights that are tried out do: the standing, and how firm its top is. */
    record Tried(Standings standings, RankStability.Firmness firmness) {}

    private static final double MOST_TRIED = 1e9;

    private final StandingsService service;
    private final StandingsShaper shaper;
    private final WhyPlace why;
    private final ReportCards cards;
    private final RankStability top;
    private final AgainstQuantity against;
    private final Generations generations;
    private final HoursAtHand hours;
    private final FrozenStandings frozen;
    private final Revision revision;
    /** Numbers of two starts of the program must not be taken for one another. */
    private final String start = Long.toString(System.currentTimeMillis(), 36);

    StandingsController(
            StandingsService service,
            StandingsShaper shaper,
            WhyPlace why,
            ReportCards cards,
            RankStability top,
            AgainstQuantity against,
            Generations generations,
            HoursAtHand hours,
            FrozenStandings frozen,
            Revision revision) {
        this.service = service;
        this.shaper = shaper;
        this.why = why;
        this.cards = cards;
        this.top = top;
        this.against = against;
        this.generations = generations;
        this.hours = hours;
        this.frozen = frozen;
        this.revision = revision;
    }

    /** Not sent again while nothing changed. */
    @GetMapping("/api/standings")
    @Nullable
    ResponseEntity<Standings> standings(@Valid @ParameterObject StandingsAsk ask, WebRequest request) {
        String tag = start + "-" + revision.now();
        return request.checkNotModified(tag)
                ? null
                : ResponseEntity.ok().eTag(tag).body(service.shown(ask));
    }

    /** With weights that somebody tries out. */
    @PostMapping("/api/standings/tried")
    Tried tried(@Valid @ParameterObject StandingsAsk ask, @Valid @NotNull @RequestBody PurposeWeighing weighing) {
        Ranked ranked = service.tried(ask, weighing);
        return new Tried(shaper.shaped(ranked), RankStability.of(ranked));
    }

    @GetMapping("/api/standings/why")
    WhyPlace.Why why(@Valid @ParameterObject StandingsAsk ask, @RequestParam long configuration) {
        return why.of(ask, configuration);
    }

    /** One configuration among those that are asked for, test by test. */
    @GetMapping("/api/configurations/{id}/report-card")
    ReportCard card(@PathVariable long id, @Valid @ParameterObject StandingsAsk ask) {
        return cards.of(id, ask);
    }

    @GetMapping("/api/standings/firmness")
    RankStability.Firmness firmness(@Valid @ParameterObject StandingsAsk ask) {
        return top.of(ask);
    }

    /** Which of its tests are worth their time, where there is less of it than all of them need. */
    @GetMapping("/api/standings/hours")
    HoursAtHand.Hours hours(
            @Valid @ParameterObject StandingsAsk ask,
            @RequestParam @Min(1) @Max(20_000) int minutes,
            @RequestParam(defaultValue = "3") @Min(1) @Max(30) int runs,
            @RequestParam(defaultValue = "5000") @Min(0) @Max(3_600_000) int pauseMs,
            @RequestParam(defaultValue = "") @Size(max = 200) Set<Long> must,
            @RequestParam(defaultValue = "") @Size(max = 200) Set<Long> never) {
        return hours.of(ask, new HoursAtHand.Asked(minutes, runs, pauseMs, must, never));
    }

    /** What standings can be held against, and scores divided by. */
    @GetMapping("/api/standings/quantities")
    List<AgainstQuantity.StandingQuantity> quantities() {
        return against.offered();
    }

    @GetMapping("/api/standings/against")
    AgainstQuantity.Against against(
            @Valid @ParameterObject StandingsAsk ask,
            @RequestParam @Size(max = 100) String quantity,
            @RequestParam(defaultValue = "") @Size(max = 8) List<@Size(max = 60) String> tried) {
        return against.of(ask, quantity, tried(tried));
    }

    /** Each a configuration and an amount, "12~899". */
    private static Map<Long, Double> tried(List<String> texts) {
        Map<Long, Double> tried = new HashMap<>();
        for (String text : texts) {
            String[] parts = text.split("~", 2);
            try {
                double amount = Double.parseDouble(parts.length < 2 ? "" : parts[1]);
                if (!(amount > 0 && amount <= MOST_TRIED)) {
                    throw new NumberFormatException("out of range");
                }
                tried.put(Long.valueOf(parts[0]), amount);
            } catch (NumberFormatException e) {
                throw Problem.invalid(
                        "not-an-amount",
                        "\"" + text
                                + "\" is nothing to try. Write a configuration's number and an amount above 0, with ~ between them.");
            }
        }
        return tried;
    }

    @GetMapping("/api/standings/generations")
    Generations.GenerationLines generations(@Valid @ParameterObject StandingsAsk ask) {
        return generations.of(ask);
    }

    /** Keeps the standing as it is now, under an address that stays. */
    @PostMapping("/api/kept-standings")
    FrozenStandings.FrozenRow freeze(
            @Valid @ParameterObject StandingsAsk ask, @Valid @RequestBody FreezeBody body, Principal who) {
        return frozen.freeze(ask, body.saved(), who.getName());
    }

    @GetMapping("/api/kept-standings")
    Page<FrozenStandings.FrozenRow> kept(
            @RequestParam(defaultValue = "0") @Min(0) int page,
            @RequestParam(defaultValue = "50") @Min(1) @Max(200) int size) {
        return frozen.all(page, size);
    }

    @PutMapping("/api/kept-standings/{key}")
    void change(@PathVariable String key, @Valid @RequestBody ChangedKept body, Principal who) {
        frozen.change(key, body.listed(), body.living(), who.getName());
    }

    @DeleteMapping("/api/kept-standings/{key}")
    void remove(@PathVariable String key, Principal who) {
        frozen.remove(key, who.getName());
    }

    /** Needs no sign-in: the key is what a reader was given. */
    @GetMapping("/api/kept/{key}")
    FrozenStandings.Frozen read(@PathVariable String key) {
        return frozen.read(key);
    }
}
