package yarrowmark.server.bench;

/** What the reviewer wants a device to do. */
public enum Command {
    GO,
    PAUSE,
    STOP
}
