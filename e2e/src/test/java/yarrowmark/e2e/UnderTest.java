package yarrowmark.e2e;

import java.util.function.Supplier;

/** A browser that is a device under test: whatever engine it has, a round is carried out in it as a person would. */
interface UnderTest extends AutoCloseable {
    UnderTest open(String address);

    void press(String button);

    void type(String label, String words);

    /** What the page's heading says now. */
    String heading();

    /** What the browser calls itself. */
    String agent();

    /** Waits until there is an answer that is neither null nor false. */
    <T> T until(String what, Supplier<T> look);

    @Override
    void close();
}
