package yarrowmark.server.lan;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.security.GeneralSecurityException;
import java.security.KeyStore;
import java.security.MessageDigest;
import java.security.cert.CertificateFactory;
import java.security.cert.X509Certificate;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.TimeUnit;

/**
 * The certificate devices on the network see: the reviewer's own where one was put into the directory, else one that is
 * made for this machine's names and addresses, and made anew before it expires or when those have changed.
 */
final class LanCertificate {
    static final String PASSWORD = "yarrowmark";
    static final String ALIAS = "lan";
    /** Browsers refuse certificates that are valid for longer than 398 days. */
    private static final int VALID_DAYS = 397;

    static final Duration RENEWED_BEFORE = Duration.ofDays(30);

    private final Path directory;

    /** @param directory is made where it is missing, and is for this user alone */
    LanCertificate(Path directory) {
        this.directory = directory;
    }

    Path keyStore() {
        return directory.resolve("lan.p12");
    }

    /** The reviewer's own, with everything up to the authority that signed it. */
    Path ownCertificate() {
        return directory.resolve("own-certificate.pem");
    }

    Path ownKey() {
        return directory.resolve("own-key.pem");
    }

    boolean isOwn() {
        return Files.exists(ownCertificate()) && Files.exists(ownKey());
    }

    /** Makes it where it is missing, is soon over, or lacks a name. @return whether there is another one now */
    boolean ensure(MachineNames names, Instant now) {
        try {
            if (!Files.exists(directory)) {
                Files.createDirectories(
                        directory, PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rwx------")));
            }
            if (isOwn()) {
                return false;
            }
            if (Files.exists(keyStore())) {
                X509Certificate there = read();
                if (there.getNotAfter().toInstant().minus(RENEWED_BEFORE).isAfter(now)
                        && namesIn(there).containsAll(wanted(names))) {
                    return false;
                }
            }
            make(names);
            return true;
        } catch (IOException e) {
            throw new UncheckedIOException("the certificate in " + directory + " could not be written", e);
        }
    }

    X509Certificate read() {
        try {
            if (isOwn()) {
                try (InputStream in = Files.newInputStream(ownCertificate())) {
                    return (X509Certificate)
                            CertificateFactory.getInstance("X.509").generateCertificate(in);
                }
            }
            KeyStore store = KeyStore.getInstance("PKCS12");
            try (InputStream in = Files.newInputStream(keyStore())) {
                store.load(in, PASSWORD.toCharArray());
            }
            return (X509Certificate) store.getCertificate(ALIAS);
        } catch (IOException | GeneralSecurityException e) {
            throw new IllegalStateException(
                    "The certificate in " + directory + " cannot be read: " + e.getMessage()
                            + " Take it away to have a new one made.",
                    e);
        }
    }

    /** As a browser shows it: SHA-256, two digits at a time. */
    static String fingerprint(X509Certificate certificate) {
        try {
            return HexFormat.ofDelimiter(":")
                    .withUpperCase()
                    .formatHex(MessageDigest.getInstance("SHA-256").digest(certificate.getEncoded()));
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException(e);
        }
    }

    private static Set<String> wanted(MachineNames names) {
        Set<String> all = new TreeSet<>(Set.of("localhost", "127.0.0.1", names.name()));
        names.addresses().forEach(a -> all.add(normal(a.getHostAddress())));
        return all;
    }

    private static Set<String> namesIn(X509Certificate certificate) {
        Set<String> names = new TreeSet<>();
        try {
            if (certificate.getSubjectAlternativeNames() != null) {
                certificate.getSubjectAlternativeNames().forEach(n -> names.add(normal(String.valueOf(n.get(1)))));
            }
        } catch (GeneralSecurityException e) {
            // A certificate whose names cannot be read is made anew.
        }
        return names;
    }

    /** The same address is written in more than one way. */
    private static String normal(String name) {
        String plain = name.replaceAll("%.*$", "");
        try {
            return plain.matches("[0-9.]+") || plain.contains(":")
                    ? InetAddress.getByName(plain).getHostAddress()
                    : plain;
        } catch (IOException e) {
            return plain;
        }
    }

    /** By the tool that every Java has, into another file first: whoever reads never sees half of one. */
    private void make(MachineNames names) throws IOException {
        Path fresh = directory.resolve("lan.new.p12");
        Files.deleteIfExists(fresh);
        List<String> also = new ArrayList<>();
        for (String name : wanted(names)) {
            also.add((name.matches("[0-9.]+") || name.contains(":") ? "ip:" : "dns:") + name);
        }
        Process made = new ProcessBuilder(
                        Path.of(System.getProperty("java.home"), "bin", "keytool")
                                .toString(),
                        "-genkeypair",
                        "-alias",
                        ALIAS,
                        "-keyalg",
                        "EC",
                        "-groupname",
                        "secp256r1",
                        "-dname",
                        "CN=Yarrowmark on " + names.name(),
                        "-validity",
                        String.valueOf(VALID_DAYS),
                        "-ext",
                        "san=" + String.join(",", also),
                        "-ext",
                        "eku=serverAuth",
                        "-storetype",
                        "PKCS12",
                        "-keystore",
                        fresh.toString(),
                        "-storepass",
                        PASSWORD)
                .redirectErrorStream(true)
                .start();
        try {
            String said = new String(made.getInputStream().readAllBytes());
            if (!made.waitFor(60, TimeUnit.SECONDS) || made.exitValue() != 0) {
                throw new IOException("keytool made no certificate: " + said.strip());
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException("interrupted while a certificate was made", e);
        }
        Files.setPosixFilePermissions(fresh, PosixFilePermissions.fromString("rw-------"));
        Files.move(fresh, keyStore(), StandardCopyOption.REPLACE_EXISTING, StandardCopyOption.ATOMIC_MOVE);
    }
}
