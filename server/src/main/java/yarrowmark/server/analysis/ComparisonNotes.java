package yarrowmark.server.analysis;

import static yarrowmark.server.platform.Require.require;

import java.util.Arrays;
import java.util.List;
import java.util.OptionalInt;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.compare.DifferenceText;
import yarrowmark.core.compare.Dominant;
import yarrowmark.core.compare.Sway;
import yarrowmark.core.measure.Kind;
import yarrowmark.core.setup.SessionConditions;
import yarrowmark.core.setup.SetupComparison;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.shelf.configuration.ConfigurationRow;
import yarrowmark.server.shelf.configuration.DifferencePage;

/** What a reader has to know beside an overall: what sways it, and why there is none. */
final class ComparisonNotes {
    private static final double NEAR_ZERO_PERCENT = 5;

    private ComparisonNotes() {}

    /** Told where facts of its kind changed as well, or where the picture turns without it. */
    static Comparison.@Nullable Swayed swayed(
            Comparison.@Nullable Overall overall, DifferencePage changed, double percent) {
        if (overall == null) {
            return null;
        }
        double[] without = overall.groups().stream()
                .mapToDouble(a -> a.without() == null ? Double.NaN : Math.log(a.without()))
                .toArray();
        OptionalInt most = Sway.of(Math.log(overall.ratio()), without, ComparisonService.materiality(percent));
        if (most.isEmpty()) {
            return null;
        }
        Comparison.Area area = overall.groups().get(most.getAsInt());
        double left = require(area.without());
        List<String> facts = changed.differing().stream()
                .filter(r -> r.role() == SetupComparison.Role.ALSO_CHANGED
                        && r.group().equals(area.name()))
                .map(DifferencePage.FactRow::label)
                .toList();
        boolean turns = overall.ratio() > 1 != left > 1;
        return facts.isEmpty() && !turns
                ? null
                : new Comparison.Swayed(
                        area.key(),
                        area.name(),
                        facts,
                        area.ratio(),
                        DifferenceText.overallSize(area.ratio()),
                        left,
                        DifferenceText.overallSize(left));
    }

    static Comparison.@Nullable NearZero nearZero(List<Comparison.ComparedRow> lines, int side) {
        double[] adds = lines.stream()
                .map(l -> l.cells().get(side).percent())
                .mapToDouble(p -> p == null ? Double.NaN : p)
                .toArray();
        OptionalInt most = Dominant.of(adds);
        if (most.isEmpty()) {
            return null;
        }
        Comparison.ComparedRow line = lines.get(most.getAsInt());
        Double base = line.value();
        Double value = line.cells().get(side).value();
        if (line.metric().kind() != Kind.PERCENTAGE
                || base == null
                || value == null
                || Math.max(base, value) >= NEAR_ZERO_PERCENT) {
            return null;
        }
        double all =
                Arrays.stream(adds).filter(a -> !Double.isNaN(a)).map(Math::abs).sum();
        return new Comparison.NearZero(
                line.metric().testId(), line.metric().test(), base, value, Math.abs(adds[most.getAsInt()]) / all);
    }

    static boolean clean(DifferencePage changed, List<SessionConditions.Difference> conditions) {
        return changed.differing().stream().anyMatch(r -> r.role() == SetupComparison.Role.UNDER_TEST)
                && changed.differing().stream().noneMatch(r -> r.role() == SetupComparison.Role.ALSO_CHANGED)
                && changed.partly().isEmpty()
                && conditions.stream().noneMatch(SessionConditions.Difference::disturbs);
    }

    /** Two units of one model with the same facts should do the same; where they do not, it is the units that differ. */
    static List<String> unlike(
            ConfigurationRow base, ComparedSide side, DifferencePage changed, List<Comparison.ComparedRow> rows) {
        ConfigurationRow other = side.configuration();
        boolean alike = base.modelId() == other.modelId()
                && !base.unit().equals(other.unit())
                && changed.partly().isEmpty()
                && changed.differing().stream().allMatch(r -> r.role() == SetupComparison.Role.WITHIN_TOLERANCE);
        return alike
                ? rows.stream()
                        .map(Comparison.ComparedRow::metric)
                        .filter(m -> side.cell(m).verdict() != null
                                && require(side.cell(m).verdict()).isClear())
                        .map(MetricRow::test)
                        .toList()
                : List.of();
    }

    static String nothingInCommon(ComparedSide side, List<Comparison.ComparedRow> rows) {
        return rows.stream().allMatch(r -> r.against() != null)
                ? "No test was run on both."
                : side.noWeight()
                        ? "The purpose gives no weight to any test that both ran."
                        : "None of the tests that both ran counts in an overall.";
    }
}
