package yarrowmark.server.bench;

import java.io.IOException;
import java.io.InputStream;
import java.net.HttpURLConnection;
import java.net.InetAddress;
import java.net.NetworkInterface;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.GeneralSecurityException;
import java.security.cert.X509Certificate;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import javax.net.ssl.HttpsURLConnection;
import javax.net.ssl.SSLContext;
import javax.net.ssl.TrustManager;
import javax.net.ssl.X509TrustManager;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/**
 * What this server can give a network test at most, so that no device is blamed for it: what it sends to itself over its own
 * door in a second, and what its network card is linked at, where the system says.
 */
@Component
class ServerLink {
    private static final Logger LOG = LoggerFactory.getLogger(ServerLink.class);
    private static final Duration GOOD_FOR = Duration.ofHours(1);
    private static final long LOOK_NANOS = 700_000_000L;
    private static final int TIMEOUT_MS = 5_000;
    private static final double BITS_IN_MEGABIT = 1e6;

    /** @param mbit in Mbit/s. @param by what sets it, in words */
    record Limit(double mbit, String by) {}

    private record Seen(double mbit, Instant at) {}

    private final Clock clock;
    private final Map<String, Seen> itself = new ConcurrentHashMap<>();

    ServerLink(Clock clock) {
        this.clock = clock;
    }

    /**
     * @param local  address of ours that the device talks to
     * @param token  of a seat whose turn it is
     * @return the smaller of both; null where neither is known
     */
    @Nullable
    Limit limit(String scheme, String local, int port, String token) {
        Seen own = itself.compute(
                scheme,
                (s, seen) -> seen != null && clock.instant().isBefore(seen.at().plus(GOOD_FOR))
                        ? seen
                        : measured(scheme, local, port, token));
        Double card = cardMbit(local);
        if (card != null && (own == null || card < own.mbit())) {
            return new Limit(card, "its network card is linked at that");
        }
        return own == null ? null : new Limit(own.mbit(), "it reads no more from itself");
    }

    private @Nullable Seen measured(String scheme, String local, int port, String token) {
        try {
            String host = local.contains(":") ? "[" + local.replaceAll("%.*$", "") + "]" : local;
            URI from = URI.create(
                    scheme + "://" + host + ":" + port + "/api/device/network/down?bytes=" + NetworkBlock.MOST_BYTES);
            long bytes = 0;
            byte[] buffer = new byte[1 << 18];
            long began = 0;
            long took = 0;
            // The first file warms the way up and is not counted.
            for (int file = 0; took < LOOK_NANOS; file++) {
                HttpURLConnection to = (HttpURLConnection) from.toURL().openConnection();
                to.setConnectTimeout(TIMEOUT_MS);
                to.setReadTimeout(TIMEOUT_MS);
                to.setRequestProperty("Authorization", "Bearer " + token);
                if (to instanceof HttpsURLConnection secure) {
                    secure.setSSLSocketFactory(ourselves().getSocketFactory());
                    secure.setHostnameVerifier((name, session) -> true);
                }
                try (InputStream in = to.getInputStream()) {
                    for (int n = in.read(buffer); n >= 0; n = in.read(buffer)) {
                        bytes += file == 0 ? 0 : n;
                    }
                }
                took = file == 0 ? 0 : System.nanoTime() - began;
                began = file == 0 ? System.nanoTime() : began;
            }
            return new Seen(8 * bytes / BITS_IN_MEGABIT / (took / 1e9), clock.instant());
        } catch (IOException | GeneralSecurityException | IllegalArgumentException e) {
            LOG.info("What this server can give over its own door is not known: {}", e.toString());
            return null;
        }
    }

    /** We know whom we talk to: the address is our own. Nothing that is read is used for anything but its length. */
    private static SSLContext ourselves() throws GeneralSecurityException {
        SSLContext context = SSLContext.getInstance("TLS");
        context.init(
                null,
                new TrustManager[] {
                    new X509TrustManager() {
                        @Override
                        public void checkClientTrusted(X509Certificate[] chain, String type) {}

                        @Override
                        public void checkServerTrusted(X509Certificate[] chain, String type) {}

                        @Override
                        public X509Certificate[] getAcceptedIssuers() {
                            return new X509Certificate[0];
                        }
                    }
                },
                null);
        return context;
    }

    /** In Mbit/s; null where the system does not say, as of wireless and made-up cards. */
    private static @Nullable Double cardMbit(String local) {
        try {
            NetworkInterface card = NetworkInterface.getByInetAddress(InetAddress.getByName(local));
            if (card == null || card.isLoopback()) {
                return null;
            }
            double said = Double.parseDouble(Files.readString(Path.of("/sys/class/net", card.getName(), "speed"))
                    .strip());
            return said > 0 ? said : null;
        } catch (IOException | NumberFormatException e) {
            return null;
        }
    }

    /** Whether an address is one of this machine's own. */
    static boolean isHere(String address) {
        try {
            InetAddress other = InetAddress.getByName(address);
            return other.isLoopbackAddress() || NetworkInterface.getByInetAddress(other) != null;
        } catch (IOException e) {
            return false;
        }
    }
}
