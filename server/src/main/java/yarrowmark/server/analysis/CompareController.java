package yarrowmark.server.analysis;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springdoc.core.annotations.ParameterObject;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import yarrowmark.server.catalog.TestGroup;
import yarrowmark.server.ledger.mark.ReadingMarks;
import yarrowmark.server.ledger.sample.SessionSelection;
import yarrowmark.server.standing.StandingsAsk;

@RestController
@RequestMapping("/api/compare")
class CompareController {
    private static final int MOST_ASKED = 200;

    record MarkedSample(long configurationId, long metricId, Set<ReadingMarks.MarkKind> kinds) {}

    private final ComparisonService service;
    private final ComparedReadings readings;
    private final BeforeAndAfter pairs;
    private final Quantities quantities;
    private final SuiteTotals totals;
    private final FactorService factors;
    private final Values values;

    CompareController(
            ComparisonService service,
            ComparedReadings readings,
            BeforeAndAfter pairs,
            Quantities quantities,
            SuiteTotals totals,
            FactorService factors,
            Values values) {
        this.values = values;
        this.factors = factors;
        this.totals = totals;
        this.service = service;
        this.readings = readings;
        this.pairs = pairs;
        this.quantities = quantities;
    }

    @GetMapping
    Comparison compare(
            @RequestParam long base,
            @RequestParam("with") @Size(max = MOST_ASKED) List<@NotNull Long> with,
            @RequestParam(required = false) @Nullable Long purpose,
            @RequestParam(required = false) @Nullable TestGroup group,
            @RequestParam(required = false) @Nullable Long suite,
            @RequestParam(defaultValue = "3") double materiality,
            @RequestParam(required = false) @Nullable String per,
            @RequestParam(defaultValue = "") @Size(max = MOST_ASKED) List<String> without,
            @RequestParam(defaultValue = "USUAL") SessionSelection take,
            @RequestParam(required = false) @Nullable SessionSelection baseTake) {
        return service.compare(new ComparisonService.Question(
                base,
                with,
                purpose,
                group,
                suite,
                materiality,
                per,
                without,
                take,
                baseTake == null ? take : baseTake));
    }

    /** Each line in words, to quote. They come after the numbers, whose answer they would make half as large again. */
    @GetMapping("/sentences")
    List<Comparison.ComparedWords> sentences(
            @RequestParam long base,
            @RequestParam("with") @Size(max = MOST_ASKED) List<@NotNull Long> with,
            @RequestParam(required = false) @Nullable TestGroup group,
            @RequestParam(required = false) @Nullable Long suite,
            @RequestParam(defaultValue = "3") double materiality,
            @RequestParam(required = false) @Nullable String per,
            @RequestParam(defaultValue = "USUAL") SessionSelection take,
            @RequestParam(required = false) @Nullable SessionSelection baseTake) {
        return service.sentences(new ComparisonService.Question(
                base, with, null, group, suite, materiality, per, List.of(), take, baseTake == null ? take : baseTake));
    }

    /** The single readings behind one line of a comparison. */
    @GetMapping("/metrics/{metricId}")
    ComparedReadings.ComparedMetric metric(
            @PathVariable long metricId,
            @RequestParam @NotEmpty @Size(max = ComparisonService.MOST) List<@NotNull Long> ids,
            @RequestParam(defaultValue = "USUAL") SessionSelection take,
            @RequestParam(required = false) @Nullable SessionSelection baseTake) {
        return readings.of(metricId, ids, take, baseTake == null ? take : baseTake);
    }

    /** Suites' own totals, from the parts that both have. */
    @GetMapping("/totals")
    List<SuiteTotals.ComparedTotal> totals(
            @RequestParam long base,
            @RequestParam("with") long other,
            @RequestParam(defaultValue = "") @Size(max = MOST_ASKED) List<@NotNull Long> without) {
        return totals.of(base, other, without);
    }

    /** Why readings behind a comparison may not be sound. */
    @GetMapping("/marks")
    List<MarkedSample> marks(@RequestParam @NotEmpty @Size(max = ComparisonService.MOST) List<@NotNull Long> ids) {
        return service.marks(ids);
    }

    /** What each one scored by itself; without metrics, everything that they were measured with. */
    /** The same of everybody in a standing, for a chart of each of their tests. */
    @GetMapping("/charts")
    Values.AskedValues charts(@Valid @ParameterObject StandingsAsk ask) {
        return values.of(ask);
    }

    @GetMapping("/values")
    Values.AskedValues values(
            @RequestParam @NotEmpty @Size(max = Values.MOST_CONFIGURATIONS) List<@NotNull Long> ids,
            @RequestParam(defaultValue = "") @Size(max = Values.MOST_METRICS) List<@NotNull Long> metrics) {
        return values.of(ids, metrics);
    }

    /** Configurations laid out by two facts. */
    @GetMapping("/factors")
    FactorGrid factors(
            @RequestParam @NotEmpty @Size(max = ComparisonService.MOST) List<@NotNull Long> ids,
            @RequestParam(required = false) @Nullable String first,
            @RequestParam(required = false) @Nullable String second,
            @RequestParam(required = false) @Nullable Long metric,
            @RequestParam(required = false) @Nullable Long purpose) {
        return factors.grid(new FactorService.Question(ids, first, second, metric, purpose));
    }

    /** Configurations that were made from one another on the same unit and were both measured. */
    @GetMapping("/pairs")
    List<BeforeAndAfter.Pair> pairs() {
        return pairs.all();
    }

    /** What the scores of all of these can be divided by. */
    @GetMapping("/quantities")
    List<Comparison.PerQuantity> quantities(
            @RequestParam @NotEmpty @Size(max = ComparisonService.MOST) List<@NotNull Long> ids) {
        return quantities.offered(ids);
    }
}
