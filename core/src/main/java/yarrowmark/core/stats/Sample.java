package yarrowmark.core.stats;

import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/**
 * All counted readings of one metric on one configuration, parted by the session they were made in: runs of one session
 * are not independent measurements of a device, because it differs from day to day.
 *
 * <p>Source: section 11 of the method. Immutable.
 */
public final class Sample implements OwnSpread {
    /** @param session equal numbers are the same sitting, also across metrics */
    public record OfSession(long session, SampleMoments moments) {}

    private final List<OfSession> sessions;
    private final int n;
    private final double mean;
    private final double sumSquares;
    private final double resolutionVariance;

    private Sample(List<OfSession> sessions) {
        this.sessions = sessions;
        int runs = 0;
        double sum = 0;
        double squares = 0;
        double rounding = 0;
        for (OfSession s : sessions) {
            SampleMoments m = s.moments();
            runs += m.n();
            sum += m.n() * m.mean();
            squares += m.sumSquares();
            rounding += m.n() * m.resolutionVariance();
        }
        n = runs;
        mean = sessions.size() == 1 ? sessions.get(0).moments().mean() : sum / runs;
        sumSquares = squares;
        resolutionVariance = sessions.size() == 1 ? sessions.get(0).moments().resolutionVariance() : rounding / runs;
    }

    /** @param sessions one or more, each once, in any order */
    public static Sample of(List<OfSession> sessions) {
        if (sessions.isEmpty()) {
            throw new IllegalArgumentException("a sample needs at least one session");
        }
        if (sessions.size() == 1) {
            return new Sample(List.copyOf(sessions));
        }
        List<OfSession> sorted = sessions.stream()
                .sorted(Comparator.comparingLong(OfSession::session))
                .toList();
        for (int i = 1; i < sorted.size(); i++) {
            if (sorted.get(i).session() == sorted.get(i - 1).session()) {
                throw new IllegalArgumentException(
                        "session " + sorted.get(i).session() + " was given twice for one sample");
            }
        }
        return new Sample(sorted);
    }

    /** Everything was measured in one session. */
    public static Sample ofOneSession(long session, SampleMoments moments) {
        return new Sample(List.of(new OfSession(session, moments)));
    }

    /** The readings of both, as if they had been of one metric; those of the same session become one part. */
    public Sample joined(Sample other) {
        Map<Long, SampleMoments> all = new TreeMap<>();
        sessions.forEach(s -> all.put(s.session(), s.moments()));
        other.sessions.forEach(s -> all.merge(s.session(), s.moments(), SampleMoments::pooled));
        return new Sample(all.entrySet().stream()
                .map(e -> new OfSession(e.getKey(), e.getValue()))
                .toList());
    }

    /** The same readings for one unit of a quantity, see {@link SampleMoments#per}. */
    public Sample per(double quantity) {
        return new Sample(sessions.stream()
                .map(s -> new OfSession(s.session(), s.moments().per(quantity)))
                .toList());
    }

    /** In rising order of their numbers. */
    public List<OfSession> sessions() {
        return sessions;
    }

    @Override
    public int n() {
        return n;
    }

    /** Mean merit of all readings, each weighing the same. */
    public double mean() {
        return mean;
    }

    @Override
    public int degreesOfFreedom() {
        return n - sessions.size();
    }

    @Override
    public double sumSquares() {
        return sumSquares;
    }

    @Override
    public double resolutionVariance() {
        return resolutionVariance;
    }

    /** As if all readings had been made in one session: for what is shown of them, never for an interval. */
    public SampleMoments together() {
        return sessions.stream()
                .map(OfSession::moments)
                .reduce(SampleMoments::pooled)
                .orElseThrow();
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Sample s && s.sessions.equals(sessions);
    }

    @Override
    public int hashCode() {
        return sessions.hashCode();
    }

    @Override
    public String toString() {
        return "Sample" + sessions;
    }
}
