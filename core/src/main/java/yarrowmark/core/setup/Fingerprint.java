package yarrowmark.core.setup;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;
import java.util.Map;
import java.util.TreeMap;

/** SHA-256 over a configuration's facts in key order: equal facts, equal fingerprint, whatever order they came in. */
public final class Fingerprint {
    private Fingerprint() {}

    public static String of(Map<String, String> facts) {
        try {
            MessageDigest digest = MessageDigest.getInstance("SHA-256");
            new TreeMap<>(facts).forEach((key, value) -> {
                // Lengths go in as well, so that no value can be mistaken for the next key.
                digest.update(
                        (key.length() + ":" + key + value.length() + ":" + value).getBytes(StandardCharsets.UTF_8));
            });
            return HexFormat.of().formatHex(digest.digest());
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java platform has SHA-256", e);
        }
    }
}
