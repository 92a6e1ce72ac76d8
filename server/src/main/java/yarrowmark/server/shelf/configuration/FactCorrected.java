package yarrowmark.server.shelf.configuration;

/** A fact of a configuration turned out to be another one than was stored. */
public record FactCorrected(long configurationId, String key) {}
