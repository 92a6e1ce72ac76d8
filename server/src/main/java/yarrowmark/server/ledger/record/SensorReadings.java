package yarrowmark.server.ledger.record;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.OptionalDouble;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.sensor.Sensed;
import yarrowmark.core.sensor.SensorTrack;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.catalog.TestRow;
import yarrowmark.server.platform.Problem;

/** What the sensors of a run come to becomes readings of a test that has metrics for it, and words. */
final class SensorReadings {
    private static final int LONGEST_NOTE = 500;
    private static final double GIGA = 1e9;

    private SensorReadings() {}

    static NewRun completed(TestRow test, NewRun run) {
        if (run.beside() == null || run.beside().tracks().isEmpty() || run.state() != RunState.OK) {
            return run;
        }
        Sensed sensed;
        try {
            sensed = Sensed.of(run.beside().tracks().stream()
                    .map(t -> new SensorTrack(
                            t.kind(),
                            t.stepMs(),
                            t.values().stream().mapToDouble(Double::doubleValue).toArray()))
                    .toList());
        } catch (IllegalArgumentException e) {
            throw Problem.invalid("invalid-track", Problem.words(e));
        }
        List<NewReading> readings = new ArrayList<>(run.readings());
        // Its other numbers may come first, and work is told in the unit of the test's own.
        String own = test.metrics().get(0).key();
        OptionalDouble rate = run.readings().stream()
                .filter(r -> r.metric().equals(own))
                .mapToDouble(NewReading::value)
                .findFirst();
        for (MetricRow metric : test.metrics()) {
            of(metric.key(), sensed, rate).ifPresent(value -> {
                if (readings.stream().noneMatch(r -> r.metric().equals(metric.key()))) {
                    readings.add(new NewReading(metric.key(), value, 0, List.of()));
                }
            });
        }
        return run.withReadings(readings).withNote(note(run.reasonWords(), sensed));
    }

    private static OptionalDouble of(String key, Sensed sensed, OptionalDouble rate) {
        OptionalDouble found =
                switch (key) {
                    case Sensed.HIGHEST_TEMPERATURE -> sensed.highestTemperature();
                    case Sensed.MEAN_TEMPERATURE -> sensed.meanTemperature();
                    case Sensed.MEAN_CLOCK ->
                        sensed.meanClock().isPresent()
                                ? OptionalDouble.of(sensed.meanClock().getAsDouble() / GIGA)
                                : OptionalDouble.empty();
                    case Sensed.ENERGY -> sensed.energy();
                    case Sensed.PER_JOULE -> perJoule(rate, sensed);
                    default -> OptionalDouble.empty();
                };
        // A ratio cannot be made of nothing: a battery on its charger gives no energy.
        boolean temperature = key.equals(Sensed.HIGHEST_TEMPERATURE) || key.equals(Sensed.MEAN_TEMPERATURE);
        return found.isPresent() && (temperature || found.getAsDouble() > 0) ? found : OptionalDouble.empty();
    }

    private static OptionalDouble perJoule(OptionalDouble rate, Sensed sensed) {
        return rate.isPresent()
                        && sensed.meanPower().isPresent()
                        && sensed.meanPower().getAsDouble() > 0
                ? OptionalDouble.of(rate.getAsDouble() / sensed.meanPower().getAsDouble())
                : OptionalDouble.empty();
    }

    private static String note(@Nullable String given, Sensed sensed) {
        List<String> words = new ArrayList<>();
        if (given != null && !given.isBlank()) {
            words.add(given);
        }
        if (sensed.heldBack() > 0) {
            words.add("The processor held itself back for heat " + sensed.heldBack()
                    + (sensed.heldBack() == 1 ? " time." : " times."));
        }
        sensed.clockKept()
                .ifPresent(kept -> words.add(
                        String.format(Locale.ROOT, "Its clock fell to %.0f %% of its best for good.", 100 * kept)));
        String all = String.join(" ", words);
        return all.length() > LONGEST_NOTE ? all.substring(0, LONGEST_NOTE) : all;
    }
}
