package yarrowmark.server.platform;

import java.time.Duration;
import org.springframework.http.HttpStatus;

/** Somebody tried too often in a short time and is told how long to wait. */
public final class TooManyTries extends Problem {
    private final Duration wait;

    public TooManyTries(String what, Duration wait) {
        super(
                HttpStatus.TOO_MANY_REQUESTS,
                "too-many-tries",
                "Too many wrong " + what + " from this address. Wait " + Math.max(1, wait.toSeconds())
                        + " s and try again.");
        this.wait = wait;
    }

    public Duration waitFor() {
        return wait;
    }
}
