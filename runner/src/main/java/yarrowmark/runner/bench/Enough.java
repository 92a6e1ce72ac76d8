package yarrowmark.runner.bench;

import java.util.Collection;
import java.util.List;
import yarrowmark.runner.protocol.Api;

/** Whether the mean of a test's runs is known as well as the plan wants it; the twin of the device page's. */
final class Enough {
    /** A finished run as far as its number goes. */
    record Value(double value, double resolution) {}

    private Enough() {}

    /** A value that is no rate says nothing. */
    static boolean is(List<Api.Limit> limits, Collection<Value> values) {
        Api.Limit limit = limits.stream()
                .filter(l -> l.runs() == values.size())
                .findFirst()
                .orElse(null);
        if (limit == null || values.stream().anyMatch(v -> !(v.value() > 0))) {
            return false;
        }
        double[] logs = values.stream().mapToDouble(v -> Math.log(v.value())).toArray();
        double mean = 0;
        for (double log : logs) {
            mean += log / logs.length;
        }
        double squares = 0;
        for (double log : logs) {
            squares += (log - mean) * (log - mean);
        }
        double rounding = values.stream()
                        .mapToDouble(v -> Math.pow(v.resolution() / v.value(), 2))
                        .sum()
                / values.size()
                / 12;
        double variance = Math.max(logs.length < 2 ? 0 : squares / (logs.length - 1), rounding);
        return Math.sqrt(variance) <= limit.spread() && Math.sqrt(rounding) <= limit.rounding();
    }
}
