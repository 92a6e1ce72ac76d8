package yarrowmark.server.platform.change;

import java.util.concurrent.atomic.AtomicLong;
import org.springframework.stereotype.Component;

/**
 * Counts the changes of the records since the start. Whoever keeps what was computed keeps this number with it, and
 * computes anew once there is a higher one. It rises after the commit, and after everybody who
 * mirrors records knows of the change: until then, the old answer is the right one.
 */
@Component
public class Revision {
    private final AtomicLong count = new AtomicLong();

    public long now() {
        return count.get();
    }

    void rise() {
        count.incrementAndGet();
    }
}
