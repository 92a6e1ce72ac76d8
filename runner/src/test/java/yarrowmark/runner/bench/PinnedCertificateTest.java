package yarrowmark.runner.bench;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.sun.net.httpserver.HttpsConfigurator;
import com.sun.net.httpserver.HttpsServer;
import java.io.InputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.KeyStore;
import java.security.cert.X509Certificate;
import java.util.concurrent.atomic.AtomicInteger;
import javax.net.ssl.KeyManagerFactory;
import javax.net.ssl.SSLContext;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A bench with a certificate that nobody vouches for, and for another name. */
class PinnedCertificateTest {
    private static final char[] PASSWORD = "only-for-this-test".toCharArray();

    @TempDir
    private Path folder;

    private HttpsServer server;
    private String fingerprint;
    private final AtomicInteger asked = new AtomicInteger();

    @BeforeEach
    void begin() throws Exception {
        Path store = folder.resolve("store.p12");
        Process made = new ProcessBuilder(
                        Path.of(System.getProperty("java.home"), "bin", "keytool")
                                .toString(),
                        "-genkeypair",
                        "-alias",
                        "bench",
                        "-keyalg",
                        "EC",
                        "-dname",
                        "CN=somewhere-else",
                        "-storetype",
                        "PKCS12",
                        "-keystore",
                        store.toString(),
                        "-storepass",
                        new String(PASSWORD))
                .redirectErrorStream(true)
                .start();
        made.getInputStream().readAllBytes();
        assertThat(made.waitFor()).isZero();
        KeyStore keys = KeyStore.getInstance("PKCS12");
        try (InputStream in = Files.newInputStream(store)) {
            keys.load(in, PASSWORD);
        }
        fingerprint = PinnedCertificate.fingerprint((X509Certificate) keys.getCertificate("bench"));
        KeyManagerFactory managers = KeyManagerFactory.getInstance(KeyManagerFactory.getDefaultAlgorithm());
        managers.init(keys, PASSWORD);
        SSLContext context = SSLContext.getInstance("TLS");
        context.init(managers.getKeyManagers(), null, null);
        server = HttpsServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.setHttpsConfigurator(new HttpsConfigurator(context));
        server.createContext("/api/device/", exchange -> {
            asked.incrementAndGet();
            byte[] body = "{\"token\":\"t\"}".getBytes(StandardCharsets.UTF_8);
            exchange.getResponseHeaders().add("Yarrowmark-Shelf", "shelf");
            exchange.getResponseHeaders().add("Yarrowmark-Protocol", "1");
            exchange.sendResponseHeaders(200, body.length);
            exchange.getResponseBody().write(body);
            exchange.close();
        });
        server.start();
    }

    @AfterEach
    void end() {
        server.stop(0);
    }

    private BenchClient client(PinnedCertificate pin) {
        return new BenchClient(
                URI.create("https://127.0.0.1:" + server.getAddress().getPort()), pin);
    }

    @Test
    void theCertificateThatIsKnownIsTrustedWhateverItsName() {
        String known = PinnedCertificate.plain(fingerprint);
        PinnedCertificate pin = new PinnedCertificate(known::equals);
        assertThat(client(pin).join("code", "a computer", "secret")).isEqualTo("t");
        assertThat(pin.seen()).isEqualTo(fingerprint);
    }

    @Test
    void anyOtherOneGetsNothing() {
        assertThatThrownBy(() -> client(new PinnedCertificate(f -> false)).join("code", "a computer", "secret"))
                .isInstanceOf(Unreachable.class)
                .hasMessageContaining("fingerprint")
                .hasMessageContaining(fingerprint);
        assertThat(asked.get()).as("not even the code").isZero();
    }
}
