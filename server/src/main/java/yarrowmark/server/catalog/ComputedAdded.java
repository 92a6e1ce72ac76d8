package yarrowmark.server.catalog;

/** A computed value was added, and sessions may be there that have its inputs already. */
public record ComputedAdded(long metricId) {}
