package yarrowmark.server.analysis;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.security.Principal;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import yarrowmark.server.platform.history.ChangeLog;
import yarrowmark.server.platform.records.Settings;

/** How differences are said where nobody asks for another way: in per cent, as times, or in the unit. */
@RestController
@RequestMapping("/api/compare/sizes")
class SizesController {
    enum Sizes {
        PERCENT,
        TIMES,
        UNIT
    }

    record SizesBody(@NotNull Sizes sizes) {}

    private static final String SETTING = "compare.sizes";

    private final Settings settings;
    private final ChangeLog changes;

    SizesController(Settings settings, ChangeLog changes) {
        this.settings = settings;
        this.changes = changes;
    }

    @GetMapping
    SizesBody usual() {
        return new SizesBody(settings.get(SETTING).map(Sizes::valueOf).orElse(Sizes.PERCENT));
    }

    @PutMapping
    @Transactional
    SizesBody change(@Valid @RequestBody SizesBody body, Principal who) {
        Sizes before = usual().sizes();
        if (before != body.sizes()) {
            settings.put(SETTING, body.sizes().name());
            changes.note(who.getName(), "comparison", 0, "sizes", words(before), words(body.sizes()));
        }
        return body;
    }

    private static String words(Sizes sizes) {
        return sizes == Sizes.PERCENT ? "in per cent" : sizes == Sizes.TIMES ? "as times" : "in the unit";
    }
}
