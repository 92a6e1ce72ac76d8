package yarrowmark.server.platform.change;

/** Keeps in memory what is made from records, and reads anew what changed when it is asked next. */
public interface Mirror {
    /** Notes what was committed. It must not read, wait or fail: whoever committed is still waiting for the answer. */
    void note(RecordsChanged change);
}
