package yarrowmark.server.platform.records;

/**
 * Looks over records that came from another place and were never seen by the doors of this program. Each room knows what its
 * own must mean; what is only made from records, such as a page, it makes anew.
 */
public interface FromElsewhere {
    /** @throws Problem what is wrong, and where */
    void lookOver();
}
