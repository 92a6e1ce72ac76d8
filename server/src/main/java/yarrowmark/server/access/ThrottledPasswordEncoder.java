package yarrowmark.server.access;

import java.util.concurrent.Semaphore;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.springframework.security.crypto.password.PasswordEncoder;

/** Each hash takes 16 MiB and a processor for a while: many sign-ins at once wait for one another instead of taking the machine. */
class ThrottledPasswordEncoder implements PasswordEncoder {
    private static final int AT_ONCE = 2;

    private final PasswordEncoder encoder;
    private final Semaphore places = new Semaphore(AT_ONCE, true);

    ThrottledPasswordEncoder(PasswordEncoder encoder) {
        this.encoder = encoder;
    }

    @Override
    public @Nullable String encode(@Nullable CharSequence password) {
        return inTurn(() -> encoder.encode(password));
    }

    @Override
    public boolean matches(@Nullable CharSequence password, @Nullable String hash) {
        return inTurn(() -> encoder.matches(password, hash));
    }

    @Override
    public boolean upgradeEncoding(@Nullable String hash) {
        return encoder.upgradeEncoding(hash);
    }

    private <T> T inTurn(Supplier<T> work) {
        places.acquireUninterruptibly();
        try {
            return work.get();
        } finally {
            places.release();
        }
    }
}
