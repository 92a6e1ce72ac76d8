package yarrowmark.server.ledger.sample;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.security.Principal;
import java.util.Map;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import yarrowmark.server.catalog.TestGroup;

/** How far results of each group of tests usually differ, where nobody has measured it here. */
@RestController
@RequestMapping("/api/usual-spreads")
class UsualSpreadsController {
    /** @param percent by group; of a change, those that are changed */
    record UsualSpreadsBody(@NotNull Map<@NotNull TestGroup, @NotNull Double> percent) {}

    private final UsualSpreads spreads;

    UsualSpreadsController(UsualSpreads spreads) {
        this.spreads = spreads;
    }

    @GetMapping
    UsualSpreadsBody all() {
        return new UsualSpreadsBody(spreads.all());
    }

    @PutMapping
    UsualSpreadsBody change(@Valid @RequestBody UsualSpreadsBody body, Principal who) {
        spreads.change(body.percent(), who.getName());
        return all();
    }
}
