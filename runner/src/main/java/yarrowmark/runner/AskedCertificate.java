package yarrowmark.runner;

import java.io.Console;
import java.io.IOException;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import yarrowmark.runner.bench.PinnedCertificate;

/** The bench's certificate, which somebody has to agree to once. */
final class AskedCertificate {
    private AskedCertificate() {}

    /** Whom to trust: what was said on the command line, what was agreed to before, or what somebody agrees to now. */
    static PinnedCertificate pin(URI bench, Path place, @Nullable String fingerprint, Consumer<String> tell)
            throws IOException {
        Path known = place.resolve("fingerprint");
        Files.createDirectories(place);
        String said = fingerprint == null ? null : PinnedCertificate.plain(fingerprint);
        String kept = Files.exists(known) ? PinnedCertificate.plain(Files.readString(known)) : null;
        return new PinnedCertificate(own -> {
            if (said != null || kept != null) {
                return own.equals(said) || said == null && own.equals(kept);
            }
            Console console = System.console();
            if (console == null) {
                tell.accept("The certificate of " + bench + " has the fingerprint " + own
                        + ". If the bench shows the same, give it with --fingerprint.");
                return false;
            }
            String answer = console.readLine(
                    "The certificate has the fingerprint%n  %s%nDoes the bench show the same? [y/N] ", own);
            if (answer == null || !answer.strip().equalsIgnoreCase("y")) {
                return false;
            }
            try {
                Files.writeString(known, own);
            } catch (IOException e) {
                tell.accept("It could not be kept, so you will be asked again.");
            }
            return true;
        });
    }
}
