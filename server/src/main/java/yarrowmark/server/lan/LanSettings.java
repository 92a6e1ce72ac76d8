package yarrowmark.server.lan;

import java.nio.file.Path;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.Map;
import org.springframework.boot.EnvironmentPostProcessor;
import org.springframework.boot.SpringApplication;
import org.springframework.core.env.ConfigurableEnvironment;
import org.springframework.core.env.MapPropertySource;

/** With yarrowmark.lan, the server speaks HTTPS to the whole network. Works before anything starts, because the certificate has to be there by then. */
public final class LanSettings implements EnvironmentPostProcessor {
    static final String DIRECTORY = "yarrowmark.certificate-directory";

    /** Those that encrypt and seal in one: no CBC, and no key that opens what was recorded before. */
    static final String CIPHERS = "TLS_AES_256_GCM_SHA384,TLS_AES_128_GCM_SHA256,TLS_CHACHA20_POLY1305_SHA256,"
            + "TLS_ECDHE_ECDSA_WITH_AES_256_GCM_SHA384,TLS_ECDHE_RSA_WITH_AES_256_GCM_SHA384,"
            + "TLS_ECDHE_ECDSA_WITH_AES_128_GCM_SHA256,TLS_ECDHE_RSA_WITH_AES_128_GCM_SHA256,"
            + "TLS_ECDHE_ECDSA_WITH_CHACHA20_POLY1305_SHA256,TLS_ECDHE_RSA_WITH_CHACHA20_POLY1305_SHA256";

    @Override
    public void postProcessEnvironment(ConfigurableEnvironment environment, SpringApplication application) {
        if (!environment.getProperty("yarrowmark.lan", Boolean.class, false)) {
            return;
        }
        Path directory = directory(environment.getProperty("YARROWMARK_VAR", "var"));
        LanCertificate certificate = new LanCertificate(directory);
        certificate.ensure(MachineNames.now(), Instant.now());
        Map<String, Object> more = new LinkedHashMap<>();
        more.put("server.address", environment.getProperty("yarrowmark.lan-address", "0.0.0.0"));
        more.put(DIRECTORY, directory.toString());
        more.put("server.ssl.bundle", "lan");
        more.put(
                "spring.ssl.bundle." + (certificate.isOwn() ? "pem" : "jks") + ".lan.options.enabled-protocols",
                "TLSv1.3,TLSv1.2");
        more.put("spring.ssl.bundle." + (certificate.isOwn() ? "pem" : "jks") + ".lan.options.ciphers", CIPHERS);
        more.put("server.servlet.session.cookie.secure", "true");
        if (certificate.isOwn()) {
            more.put("spring.ssl.bundle.pem.lan.keystore.certificate", "file:" + certificate.ownCertificate());
            more.put("spring.ssl.bundle.pem.lan.keystore.private-key", "file:" + certificate.ownKey());
            more.put("spring.ssl.bundle.pem.lan.reload-on-update", "true");
        } else {
            more.put("spring.ssl.bundle.jks.lan.keystore.location", "file:" + certificate.keyStore());
            more.put("spring.ssl.bundle.jks.lan.keystore.type", "PKCS12");
            more.put("spring.ssl.bundle.jks.lan.keystore.password", LanCertificate.PASSWORD);
            more.put("spring.ssl.bundle.jks.lan.reload-on-update", "true");
        }
        environment.getPropertySources().addFirst(new MapPropertySource("lan", more));
    }

    static Path directory(String var) {
        return Path.of(var).toAbsolutePath().resolve("certificate");
    }
}
