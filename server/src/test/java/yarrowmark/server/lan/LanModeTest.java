package yarrowmark.server.lan;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.ServerSocket;
import java.net.Socket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Path;
import java.security.SecureRandom;
import java.security.cert.X509Certificate;
import javax.net.ssl.SSLContext;
import javax.net.ssl.SSLEngine;
import javax.net.ssl.TrustManager;
import javax.net.ssl.X509ExtendedTrustManager;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.boot.builder.SpringApplicationBuilder;
import org.springframework.boot.web.server.context.WebServerApplicationContext;
import org.springframework.context.ConfigurableApplicationContext;
import yarrowmark.server.YarrowmarkServer;
import yarrowmark.server.support.FreshSchema;

/** A server that the network may reach, on this machine. */
class LanModeTest {
    @TempDir
    static Path var;

    private static ConfigurableApplicationContext server;
    private static HttpClient client;
    private static int plain;
    private static int secure;
    /** What the server showed in its last handshake. */
    private static X509Certificate shown;

    @BeforeAll
    static void start() throws Exception {
        try (ServerSocket free = new ServerSocket(0)) {
            plain = free.getLocalPort();
        }
        server = new SpringApplicationBuilder(YarrowmarkServer.class)
                .initializers(new FreshSchema())
                .run(
                        "--yarrowmark.lan=true",
                        "--yarrowmark.lan-address=127.0.0.1",
                        "--server.port=0",
                        "--yarrowmark.http-port=" + plain,
                        "--YARROWMARK_VAR=" + var);
        secure = ((WebServerApplicationContext) server).getWebServer().getPort();
        SSLContext tls = SSLContext.getInstance("TLS");
        tls.init(null, new TrustManager[] {new Remembering()}, new SecureRandom());
        client = HttpClient.newBuilder().sslContext(tls).build();
    }

    @AfterAll
    static void stop() {
        server.close();
    }

    private static HttpResponse<String> get(String address) throws Exception {
        return client.send(HttpRequest.newBuilder(URI.create(address)).build(), HttpResponse.BodyHandlers.ofString());
    }

    @Test
    void plainHttpIsSentToHttpsWithAddressAndQuestion() throws Exception {
        HttpResponse<String> answer = get("http://127.0.0.1:" + plain + "/j/heron-22?from=qr");
        assertThat(answer.statusCode()).isEqualTo(308);
        assertThat(answer.headers().firstValue("Location"))
                .hasValue("https://127.0.0.1:" + secure + "/j/heron-22?from=qr");
        assertThat(answer.body()).isEmpty();
    }

    @Test
    void theDevicePageComesByHttpsWithItsOwnCertificate() throws Exception {
        HttpResponse<String> answer = get("https://127.0.0.1:" + secure + "/j");
        assertThat(answer.statusCode()).isEqualTo(200);
        assertThat(answer.headers().firstValue("Cross-Origin-Embedder-Policy")).hasValue("require-corp");
        // With a certificate of one's own, browsers that were told to insist could never be told otherwise.
        assertThat(answer.headers().firstValue("Strict-Transport-Security")).isEmpty();
        assertThat(shown).isEqualTo(new LanCertificate(LanSettings.directory(var.toString())).read());
    }

    @Test
    void cookiesTravelByHttpsOnly() throws Exception {
        HttpResponse<String> answer = get("https://127.0.0.1:" + secure + "/api/access");
        assertThat(answer.headers().allValues("Set-Cookie")).isNotEmpty().allMatch(c -> c.contains("Secure"));
    }

    @Test
    void whereTheServerIsReachedNeedsASignIn() throws Exception {
        assertThat(get("https://127.0.0.1:" + secure + "/api/reach").statusCode())
                .isEqualTo(401);
    }

    /** Trusts everybody and remembers whom: as a person does who compares the fingerprint. */
    private static final class Remembering extends X509ExtendedTrustManager {
        @Override
        public void checkServerTrusted(X509Certificate[] chain, String kind, SSLEngine engine) {
            shown = chain[0];
        }

        @Override
        public void checkServerTrusted(X509Certificate[] chain, String kind, Socket socket) {
            shown = chain[0];
        }

        @Override
        public void checkServerTrusted(X509Certificate[] chain, String kind) {
            shown = chain[0];
        }

        @Override
        public void checkClientTrusted(X509Certificate[] chain, String kind, SSLEngine engine) {
            throw new UnsupportedOperationException("no client shows a certificate here");
        }

        @Override
        public void checkClientTrusted(X509Certificate[] chain, String kind, Socket socket) {
            throw new UnsupportedOperationException("no client shows a certificate here");
        }

        @Override
        public void checkClientTrusted(X509Certificate[] chain, String kind) {
            throw new UnsupportedOperationException("no client shows a certificate here");
        }

        @Override
        public X509Certificate[] getAcceptedIssuers() {
            return new X509Certificate[0];
        }
    }
}
