package yarrowmark.runner.sensor;

import java.util.function.DoubleSupplier;

/**
 * One thing that can be read at any moment.
 *
 * @param kind as the bench knows it: temperature, clock, power, discharge and throttle are computed with, others are shown
 * @param read the value now, in the unit; not a number where it does not answer just now
 */
record Sensor(String kind, String name, String unit, DoubleSupplier read) {
    static final String TEMPERATURE = "temperature";
    static final String OTHER_TEMPERATURE = "temperature-elsewhere";
    static final String CLOCK = "clock";
    static final String CLOCK_RANGE = "clock-range";
    static final String POWER = "power";
    static final String POWER_PART = "power-part";
    static final String DISCHARGE = "discharge";
    static final String FAN = "fan";
    static final String THROTTLE = "throttle";
    static final String OTHERS = "others";

    /** Counts are added up where two steps become one; everything else has a mean. */
    boolean counts() {
        return kind.equals(THROTTLE);
    }
}
