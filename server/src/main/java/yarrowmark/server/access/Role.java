package yarrowmark.server.access;

/** What a person may do. */
public enum Role {
    OWNER,
    REVIEWER,
    READER
}
