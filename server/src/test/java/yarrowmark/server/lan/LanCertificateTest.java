package yarrowmark.server.lan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.InputStream;
import java.net.InetAddress;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.security.KeyStore;
import java.security.cert.X509Certificate;
import java.time.Duration;
import java.time.Instant;
import java.util.Base64;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class LanCertificateTest {
    @TempDir
    Path temporary;

    private LanCertificate certificate;

    @BeforeEach
    void directory() {
        certificate = new LanCertificate(temporary.resolve("certificate"));
    }

    private static MachineNames machine(String name, String... addresses) throws Exception {
        InetAddress[] all = new InetAddress[addresses.length];
        for (int i = 0; i < addresses.length; i++) {
            all[i] = InetAddress.getByName(addresses[i]);
        }
        return new MachineNames(name, List.of(all));
    }

    @Test
    void itIsMadeOnceForEveryNameOfTheMachine() throws Exception {
        MachineNames names = machine("tarn", "192.168.7.20", "fd00::7");
        assertThat(certificate.ensure(names, Instant.now())).isTrue();
        X509Certificate made = certificate.read();
        assertThat(made.getSubjectAlternativeNames())
                .extracting(n -> n.get(1).toString())
                .contains("localhost", "127.0.0.1", "tarn", "192.168.7.20");
        assertThat(made.getNotAfter().toInstant())
                .isBetween(
                        Instant.now().plus(Duration.ofDays(390)), Instant.now().plus(Duration.ofDays(398)));
        assertThat(certificate.ensure(names, Instant.now())).isFalse();
        assertThat(certificate.read()).isEqualTo(made);
    }

    @Test
    void anotherAddressOrAnEndThatIsNearMakesANewOne() throws Exception {
        certificate.ensure(machine("tarn", "192.168.7.20"), Instant.now());
        String first = LanCertificate.fingerprint(certificate.read());
        assertThat(certificate.ensure(machine("tarn", "192.168.7.21"), Instant.now()))
                .isTrue();
        X509Certificate second = certificate.read();
        assertThat(LanCertificate.fingerprint(second)).isNotEqualTo(first).matches("([0-9A-F]{2}:){31}[0-9A-F]{2}");
        Instant end = second.getNotAfter().toInstant();
        assertThat(certificate.ensure(
                        machine("tarn", "192.168.7.21"),
                        end.minus(LanCertificate.RENEWED_BEFORE).minusSeconds(60)))
                .isFalse();
        assertThat(certificate.ensure(
                        machine("tarn", "192.168.7.21"),
                        end.minus(LanCertificate.RENEWED_BEFORE).plusSeconds(60)))
                .isTrue();
    }

    @Test
    void nobodyElseOnTheMachineReadsTheKey() throws Exception {
        certificate.ensure(machine("tarn"), Instant.now());
        assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(certificate.keyStore())))
                .isEqualTo("rw-------");
        assertThat(PosixFilePermissions.toString(
                        Files.getPosixFilePermissions(certificate.keyStore().getParent())))
                .isEqualTo("rwx------");
    }

    @Test
    void theReviewersOwnIsUsedAndLeftAlone() throws Exception {
        certificate.ensure(machine("tarn"), Instant.now());
        KeyStore store = KeyStore.getInstance("PKCS12");
        try (InputStream in = Files.newInputStream(certificate.keyStore())) {
            store.load(in, LanCertificate.PASSWORD.toCharArray());
        }
        X509Certificate own = (X509Certificate) store.getCertificate(LanCertificate.ALIAS);
        Files.writeString(certificate.ownCertificate(), pem("CERTIFICATE", own.getEncoded()));
        assertThat(certificate.isOwn()).isFalse();
        Files.writeString(
                certificate.ownKey(),
                pem(
                        "PRIVATE KEY",
                        store.getKey(LanCertificate.ALIAS, LanCertificate.PASSWORD.toCharArray())
                                .getEncoded()));
        assertThat(certificate.isOwn()).isTrue();
        assertThat(certificate.ensure(machine("other", "10.0.0.9"), Instant.now()))
                .isFalse();
        assertThat(certificate.read()).isEqualTo(own);
    }

    @Test
    void aFileThatIsNoneIsSaid() throws Exception {
        certificate.ensure(machine("tarn"), Instant.now());
        Files.writeString(certificate.keyStore(), "not a key store");
        assertThatThrownBy(certificate::read)
                .hasMessageContaining("cannot be read")
                .hasMessageContaining("Take it away");
    }

    private static String pem(String what, byte[] bytes) {
        return "-----BEGIN " + what + "-----\n"
                + Base64.getMimeEncoder(64, new byte[] {'\n'}).encodeToString(bytes) + "\n-----END " + what + "-----\n";
    }
}
