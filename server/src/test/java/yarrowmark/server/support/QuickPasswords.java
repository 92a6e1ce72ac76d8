package yarrowmark.server.support;

import java.util.Map;
import org.springframework.boot.test.context.TestConfiguration;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Primary;
import org.springframework.security.crypto.argon2.Argon2PasswordEncoder;
import org.springframework.security.crypto.bcrypt.BCryptPasswordEncoder;
import org.springframework.security.crypto.password.DelegatingPasswordEncoder;
import org.springframework.security.crypto.password.PasswordEncoder;

/**
 * Passwords by the same ways with less work: hundreds of sign-ins took a sixth of the time of all tests. What real ones
 * take is a test of its own (PasswordHashTest).
 */
@TestConfiguration
class QuickPasswords {
    private static final int MEMORY_KIB = 64;

    @Bean
    @Primary
    PasswordEncoder quickPasswords() {
        return new DelegatingPasswordEncoder(
                "argon2",
                Map.of(
                        "argon2",
                        new Argon2PasswordEncoder(16, 32, 1, MEMORY_KIB, 1),
                        "bcrypt",
                        new BCryptPasswordEncoder(4)));
    }
}
