package yarrowmark.core.stats;

/**
 * How many configurations tell how far days differ: those that were measured in two sessions or more.
 *
 * @param fewest of the suites it is about
 * @param most   of the same
 */
public record DayBasis(int fewest, int most) {
    public static final DayBasis NONE = new DayBasis(0, 0);

    public DayBasis {
        if (fewest < 0 || most < fewest) {
            throw new IllegalArgumentException("from 0 or more upwards, not " + fewest + " to " + most);
        }
    }

    public static DayBasis of(int devices) {
        return new DayBasis(devices, devices);
    }

    public DayBasis with(DayBasis other) {
        return new DayBasis(Math.min(fewest, other.fewest), Math.max(most, other.most));
    }

    /** What an interval rests on, to follow it after a comma. */
    public String words() {
        if (most == 0) {
            return "day to day as is usual for tests: nobody here has measured a device on two days yet";
        }
        String devices = "day to day from " + most + (most == 1 ? " device" : " devices");
        return fewest == 0 ? devices + " for some of the tests, and as is usual for the others" : devices;
    }
}
