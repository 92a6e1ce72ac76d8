package yarrowmark.server.access;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.springframework.security.crypto.bcrypt.BCryptPasswordEncoder;
import org.springframework.security.crypto.password.PasswordEncoder;

/** What real passwords are kept by; the other tests use a quicker one. */
class PasswordHashTest {
    private final PasswordEncoder encoder = AccessRules.passwords();

    @Test
    void aPasswordIsKeptByArgon2WithMemoryThatIsDearToWhoeverGuesses() {
        String hash = encoder.encode("a long password");
        assertThat(hash).startsWith("{argon2}$argon2id$v=19$m=16384,t=2,p=1$");
        assertThat(encoder.matches("a long password", hash)).isTrue();
        assertThat(encoder.matches("a long passwore", hash)).isFalse();
        assertThat(encoder.upgradeEncoding(hash)).isFalse();
    }

    @Test
    void oneOfBeforeIsKnownAndRenewed() {
        String before = "{bcrypt}" + new BCryptPasswordEncoder(4).encode("a long password");
        assertThat(encoder.matches("a long password", before)).isTrue();
        assertThat(encoder.upgradeEncoding(before)).isTrue();
    }
}
