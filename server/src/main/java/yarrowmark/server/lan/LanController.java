package yarrowmark.server.lan;

import static yarrowmark.server.platform.Require.require;

import java.security.cert.X509Certificate;
import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.boot.web.server.context.WebServerApplicationContext;
import org.springframework.context.ApplicationContext;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Where other devices find this server. */
@RestController
@RequestMapping("/api/reach")
class LanController {
    /**
     * @param addresses   the likeliest one first; empty while the server listens on this machine only
     * @param fingerprint SHA-256 of the certificate, as a browser shows it
     * @param own         whether the certificate is the reviewer's own
     */
    record Reach(List<String> addresses, @Nullable String fingerprint, @Nullable Instant validUntil, boolean own) {}

    private final ObjectProvider<LanCertificate> certificate;
    private final ApplicationContext context;

    LanController(ObjectProvider<LanCertificate> certificate, ApplicationContext context) {
        this.certificate = certificate;
        this.context = context;
    }

    @GetMapping
    Reach reach() {
        LanCertificate lan = certificate.getIfAvailable();
        if (lan == null) {
            return new Reach(List.of(), null, null, false);
        }
        int port =
                require(((WebServerApplicationContext) context).getWebServer()).getPort();
        X509Certificate seen = lan.read();
        return new Reach(
                MachineNames.now().addresses().stream()
                        .map(a -> "https://" + MachineNames.plain(a) + ":" + port)
                        .toList(),
                LanCertificate.fingerprint(seen),
                seen.getNotAfter().toInstant(),
                lan.isOwn());
    }
}
