package yarrowmark.runner.bench;

import java.net.Socket;
import java.security.GeneralSecurityException;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.security.cert.CertificateEncodingException;
import java.security.cert.CertificateException;
import java.security.cert.X509Certificate;
import java.util.HexFormat;
import java.util.Locale;
import java.util.function.Predicate;
import javax.net.ssl.SSLContext;
import javax.net.ssl.SSLEngine;
import javax.net.ssl.TrustManager;
import javax.net.ssl.X509ExtendedTrustManager;
import org.jspecify.annotations.Nullable;

/**
 * Trusts one certificate, by its fingerprint: a bench in a network of one's own has one that nobody vouches for, and shows
 * its fingerprint to whoever sits there.
 */
public final class PinnedCertificate {
    private final Predicate<String> trusted;
    private volatile @Nullable String seen;

    /** @param trusted whether a certificate with this fingerprint is the bench's */
    public PinnedCertificate(Predicate<String> trusted) {
        this.trusted = trusted;
    }

    /** Two hexadecimal digits for each byte, with colons between, as a browser shows it. */
    static String fingerprint(X509Certificate certificate) {
        try {
            return HexFormat.ofDelimiter(":")
                    .withUpperCase()
                    .formatHex(MessageDigest.getInstance("SHA-256").digest(certificate.getEncoded()));
        } catch (NoSuchAlgorithmException | CertificateEncodingException e) {
            throw new IllegalStateException(e);
        }
    }

    /** The same however it was typed: with colons, spaces or none, in small letters or large ones. */
    public static String plain(String typed) {
        return typed.replaceAll("[^0-9a-fA-F]", "").toUpperCase(Locale.ROOT);
    }

    /** The certificate that was seen last; absent where none was. */
    public @Nullable String seen() {
        return seen;
    }

    SSLContext context() {
        try {
            SSLContext context = SSLContext.getInstance("TLS");
            context.init(null, new TrustManager[] {new ByFingerprint()}, null);
            return context;
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException(e);
        }
    }

    /** Extended, so that Java does not look at the name beside it: a fingerprint is more than a name. */
    private final class ByFingerprint extends X509ExtendedTrustManager {
        private void check(X509Certificate[] chain) throws CertificateException {
            String own = fingerprint(chain[0]);
            seen = own;
            if (!trusted.test(plain(own))) {
                throw new CertificateException("another certificate than the bench's: " + own);
            }
        }

        @Override
        public void checkServerTrusted(X509Certificate[] chain, String type) throws CertificateException {
            check(chain);
        }

        @Override
        public void checkServerTrusted(X509Certificate[] chain, String type, Socket socket)
                throws CertificateException {
            check(chain);
        }

        @Override
        public void checkServerTrusted(X509Certificate[] chain, String type, SSLEngine engine)
                throws CertificateException {
            check(chain);
        }

        @Override
        public void checkClientTrusted(X509Certificate[] chain, String type) throws CertificateException {
            throw new CertificateException("nobody comes in here");
        }

        @Override
        public void checkClientTrusted(X509Certificate[] chain, String type, Socket socket)
                throws CertificateException {
            throw new CertificateException("nobody comes in here");
        }

        @Override
        public void checkClientTrusted(X509Certificate[] chain, String type, SSLEngine engine)
                throws CertificateException {
            throw new CertificateException("nobody comes in here");
        }

        @Override
        public X509Certificate[] getAcceptedIssuers() {
            return new X509Certificate[0];
        }
    }
}
