package yarrowmark.server.access;

import org.jspecify.annotations.Nullable;
import org.springframework.security.crypto.password.PasswordEncoder;
import yarrowmark.server.platform.Turns;

/** Each hash takes 16 MiB and a processor for a while: many sign-ins at once wait for one another instead of taking the machine. */
class ThrottledPasswordEncoder implements PasswordEncoder {
    private static final int AT_ONCE = 2;

    private final PasswordEncoder encoder;
    private final Turns turns = new Turns(AT_ONCE, null);

    ThrottledPasswordEncoder(PasswordEncoder encoder) {
        this.encoder = encoder;
    }

    @Override
    public @Nullable String encode(@Nullable CharSequence password) {
        return turns.take(() -> encoder.encode(password));
    }

    @Override
    public boolean matches(@Nullable CharSequence password, @Nullable String hash) {
        return turns.take(() -> encoder.matches(password, hash));
    }

    @Override
    public boolean upgradeEncoding(@Nullable String hash) {
        return encoder.upgradeEncoding(hash);
    }
}
