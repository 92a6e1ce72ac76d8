package yarrowmark.server.site;

import java.time.Clock;
import java.time.Instant;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.server.platform.Tokens;
import yarrowmark.server.platform.records.Settings;

/** Lets bin/site take the folder: whoever can write to the records may do so, once and within a minute. */
@Component
class SitePass {
    /** Holds "HASH SECONDS": of the pass, and until when it is good, since 1970. */
    private static final String NAME = "site.pass";

    private final Settings settings;
    private final Clock clock;

    SitePass(Settings settings, Clock clock) {
        this.settings = settings;
        this.clock = clock;
    }

    @Transactional
    public boolean isTaken(String pass) {
        String[] kept = settings.get(NAME).orElse("").split(" ");
        if (kept.length != 2
                || !kept[0].equals(Tokens.hash(pass))
                || clock.instant().isAfter(Instant.ofEpochSecond(Long.parseLong(kept[1])))) {
            return false;
        }
        settings.put(NAME, "");
        return true;
    }
}
