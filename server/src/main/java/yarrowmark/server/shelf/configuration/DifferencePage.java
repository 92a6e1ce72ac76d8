package yarrowmark.server.shelf.configuration;

import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.setup.FactChange;
import yarrowmark.core.setup.FactText;
import yarrowmark.core.setup.SetupComparison;

/** Facts of several configurations side by side, told from one of them. */
public record DifferencePage(
        List<ConfigurationRow> configurations,
        long base,
        List<FactRow> differing,
        List<FactRow> partly,
        List<FactRow> same) {
    /** How a value relates to the base's. */
    public enum How {
        RATIO,
        SHIFT,
        NEWER,
        OLDER,
        OTHER
    }

    /** @param amount the ratio to the base, or the difference to it in the fact's base unit; absent for the others */
    public record FactStep(How how, @Nullable Double amount) {}

    /** @param shown as people write it; null where it is not known of this configuration */
    public record FactCell(@Nullable String shown, @Nullable FactStep change) {}

    /** @param cells one for each configuration, in their order */
    public record FactRow(
            String key, String label, String group, String unit, SetupComparison.Role role, List<FactCell> cells) {}

    static DifferencePage of(List<ConfigurationRow> configurations, long base, SetupComparison c) {
        return new DifferencePage(
                configurations,
                base,
                c.differing().stream().map(DifferencePage::row).toList(),
                c.partly().stream().map(DifferencePage::row).toList(),
                c.same().stream().map(DifferencePage::row).toList());
    }

    private static FactRow row(SetupComparison.Row r) {
        List<FactCell> cells = new java.util.ArrayList<>();
        for (int i = 0; i < r.values().size(); i++) {
            cells.add(new FactCell(
                    r.values().get(i).map(v -> FactText.of(r.key(), v)).orElse(null),
                    change(r.changes().get(i))));
        }
        return new FactRow(
                r.key().key(),
                r.key().label(),
                r.key().group().label(),
                r.key().dimension().base(),
                r.role(),
                cells);
    }

    private static @Nullable FactStep change(Optional<FactChange> change) {
        if (change.isEmpty()) {
            return null;
        }
        FactChange c = change.get();
        if (c instanceof FactChange.Ratio ratio) {
            return new FactStep(How.RATIO, ratio.laterOverEarlier());
        }
        if (c instanceof FactChange.Shift shift) {
            return new FactStep(How.SHIFT, shift.laterMinusEarlier());
        }
        return new FactStep(
                c instanceof FactChange.Newer ? How.NEWER : c instanceof FactChange.Older ? How.OLDER : How.OTHER,
                null);
    }
}
