package yarrowmark.server.shelf.configuration;

/** Where a fact comes from: the device page found it, a person typed it, or it was read out of what a tool printed. */
public enum FactSource {
    DETECTED,
    TYPED,
    READ
}
