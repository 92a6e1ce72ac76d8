package yarrowmark.core.curve;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Reads many points as they are pasted: pairs for a curve, one a line ("4 KiB; 128.5"), or frame times or timestamps in
 * ms, in any layout. A first line without a number is taken for a heading.
 */
public final class SeriesText {
    /** @param reason says which line, in words for the person who pasted */
    public static final class NotReadable extends Exception {
        private static final long serialVersionUID = 1;

        NotReadable(String reason) {
            super(reason);
        }
    }

    public static final int MOST_POINTS = 200_000;
    private static final Map<String, Long> FACTORS = Map.of(
            "",
            1L,
            "B",
            1L,
            "K",
            1L << 10,
            "KIB",
            1L << 10,
            "KB",
            1000L,
            "M",
            1L << 20,
            "MIB",
            1L << 20,
            "MB",
            1_000_000L,
            "G",
            1L << 30,
            "GIB",
            1L << 30);
    private static final Pattern SIZED = Pattern.compile("(\\d+(?:\\.\\d+)?(?:[eE][-+]?\\d+)?)\\s*([A-Za-z]*)");

    private SeriesText() {}

    /** @throws NotReadable where a line is no pair, or an x is there twice */
    public static List<Curve.Point> points(String text) throws NotReadable {
        List<Curve.Point> points = new ArrayList<>();
        String[] lines = text.split("\\R");
        for (int i = 0; i < lines.length; i++) {
            String line = lines[i].strip();
            if (line.isEmpty() || points.isEmpty() && !line.matches(".*\\d.*")) {
                continue;
            }
            points.add(pair(line, i + 1));
            if (points.size() > MOST_POINTS) {
                throw tooMany();
            }
        }
        if (points.size() < 2) {
            throw new NotReadable("A curve needs two points or more, one a line: \"4 KiB; 128.5\".");
        }
        try {
            return new Curve(points).points();
        } catch (IllegalArgumentException e) {
            throw new NotReadable("This is no curve: " + e.getMessage() + ".");
        }
    }

    private static Curve.Point pair(String line, int number) throws NotReadable {
        String[] cells = line.contains("\t") || line.contains(";")
                ? line.split("[\t;]")
                : line.contains(",") ? line.split(",") : halves(line);
        if (cells.length != 2) {
            throw new NotReadable("Line " + number + ", \"" + shortened(line) + "\", is no pair of x and y.");
        }
        Optional<Double> x = sized(cells[0]);
        Optional<Double> y = sized(cells[1]);
        if (x.isEmpty() || y.isEmpty()) {
            throw new NotReadable("Line " + number + ": \"" + shortened((x.isEmpty() ? cells[0] : cells[1]).strip())
                    + "\" is no number.");
        }
        return new Curve.Point(x.get(), y.get());
    }

    /** "4 KiB 128.5" has two blanks; the last one parts x and y. */
    private static String[] halves(String line) {
        int at = Math.max(line.lastIndexOf(' '), line.lastIndexOf('\t'));
        return at < 0 ? new String[] {line} : new String[] {line.substring(0, at), line.substring(at + 1)};
    }

    private static Optional<Double> sized(String text) {
        Matcher m = SIZED.matcher(text.strip());
        Long factor = m.matches() ? FACTORS.get(m.group(2).toUpperCase(Locale.ROOT)) : null;
        return factor == null
                ? Optional.empty()
                : Optional.of(new BigDecimal(m.group(1))
                        .multiply(BigDecimal.valueOf(factor))
                        .doubleValue());
    }

    /**
     * @param timestamps whether the numbers are points in time rather than lengths
     * @return frame times in ms
     */
    public static double[] frames(String text, boolean timestamps) throws NotReadable {
        String[] words = text.strip().split("[\\s,;]+");
        int heading = words.length > 0 && !words[0].matches(".*\\d.*") ? 1 : 0;
        if (words.length - heading > MOST_POINTS) {
            throw tooMany();
        }
        double[] numbers = new double[words.length - heading];
        for (int i = 0; i < numbers.length; i++) {
            try {
                numbers[i] = new BigDecimal(words[i + heading]).doubleValue();
            } catch (NumberFormatException e) {
                throw new NotReadable(
                        "Number " + (i + 1) + ", \"" + shortened(words[i + heading]) + "\", is no time in ms.");
            }
        }
        try {
            double[] times = timestamps ? FrameTimes.between(numbers) : numbers;
            FrameTimes.of(times);
            return times;
        } catch (IllegalArgumentException e) {
            throw new NotReadable("These are no frame times: " + e.getMessage() + ".");
        }
    }

    private static NotReadable tooMany() {
        return new NotReadable("At most " + MOST_POINTS + " points are taken.");
    }

    private static String shortened(String text) {
        return text.length() <= 40 ? text : text.substring(0, 39) + "…";
    }
}
