package yarrowmark.core.table;

import java.util.Objects;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.measure.Direction;

/**
 * What one column is.
 *
 * @param name      the key of a fact, the field of a model, or the name of a test; empty for other roles
 * @param metric    which number of its test; empty where a test has one
 * @param unit      of a test, "1" where it has none; or what bare numbers of a fact or field are in; may be empty
 * @param direction of a test
 * @param run       of a test, from 1
 * @param group     of a test, the name of a group of tests such as GRAPHICS
 */
public record ColumnPlan(
        int column,
        ColumnRole role,
        String name,
        String metric,
        String unit,
        @Nullable Direction direction,
        int run,
        String group) {
    public ColumnPlan {
        Objects.requireNonNull(role, "role");
        Objects.requireNonNull(name, "name");
        Objects.requireNonNull(metric, "metric");
        Objects.requireNonNull(unit, "unit");
        Objects.requireNonNull(group, "group");
    }

    public static ColumnPlan of(int column, ColumnRole role) {
        return new ColumnPlan(column, role, "", "", "", null, 1, "");
    }

    public static ColumnPlan named(int column, ColumnRole role, String name, String unit) {
        return new ColumnPlan(column, role, name, "", unit, null, 1, "");
    }

    public ColumnPlan asRun(int n) {
        return new ColumnPlan(column, role, name, metric, unit, direction, n, group);
    }
}
