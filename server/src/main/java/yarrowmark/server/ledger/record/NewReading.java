package yarrowmark.server.ledger.record;

import java.util.List;

/**
 * @param resolution smallest step the value could show, in its unit
 * @param samples    the timing samples behind it, may be empty
 */
public record NewReading(String metric, double value, double resolution, List<Double> samples) {}
