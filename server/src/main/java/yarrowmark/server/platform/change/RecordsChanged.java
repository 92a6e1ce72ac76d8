package yarrowmark.server.platform.change;

/** An event after which what was computed from the records may be another. */
public interface RecordsChanged {}
