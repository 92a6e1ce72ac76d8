package yarrowmark.core.sensor;

/**
 * What one sensor said during a run, at equal steps of time.
 *
 * @param kind   one of the kinds named here, or another that nothing is computed from
 * @param stepMs between two values
 * @param values in °C, Hz or W; of power each is the mean of the step before it, so that they add up to the energy
 */
public record SensorTrack(String kind, int stepMs, double[] values) {
    /** Of a processor, in °C. */
    public static final String TEMPERATURE = "temperature";
    /** Of one core, in Hz. */
    public static final String CLOCK = "clock";
    /** Of the processor package, in W. */
    public static final String POWER = "power";
    /** What a battery gives, in W. */
    public static final String DISCHARGE = "discharge";
    /** How often the processor held itself back for heat in each step. */
    public static final String THROTTLE = "throttle";

    public SensorTrack {
        if (stepMs <= 0 || values.length == 0) {
            throw new IllegalArgumentException("a track has values, and a step above 0 ms");
        }
        for (double v : values) {
            if (!Double.isFinite(v)) {
                throw new IllegalArgumentException("a sensor's values are finite numbers");
            }
        }
        values = values.clone();
    }

    @Override
    public double[] values() {
        return values.clone();
    }
}
