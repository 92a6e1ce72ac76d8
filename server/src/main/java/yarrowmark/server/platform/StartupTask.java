package yarrowmark.server.platform;

import org.springframework.context.SmartLifecycle;

/**
 * Work that has to be done before the server takes its first request: what every shelf has, the demo's records. The
 * web server itself starts in the last phase, so a visitor never meets a shelf that is half filled.
 */
public interface StartupTask extends SmartLifecycle {
    /** Lower ones first. */
    @Override
    int getPhase();

    @Override
    default void stop() {
        // Nothing goes on after start().
    }

    @Override
    default boolean isRunning() {
        return false;
    }
}
