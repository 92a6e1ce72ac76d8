package yarrowmark.server.ledger.line;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.security.Principal;
import java.util.Set;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import yarrowmark.server.ledger.sample.CountedSessions;
import yarrowmark.server.ledger.sample.SessionSelection;

/** The lab's list: under which conditions a session does not count by default. */
@RestController
@RequestMapping("/api/conditions")
class ConditionsController {
    record ConditionsBody(@NotNull Set<@NotNull SessionSelection> notCounted) {}

    private final CountedSessions taken;

    ConditionsController(CountedSessions taken) {
        this.taken = taken;
    }

    @GetMapping
    ConditionsBody list() {
        return new ConditionsBody(taken.list());
    }

    @PutMapping
    ConditionsBody change(@Valid @RequestBody ConditionsBody body, Principal who) {
        taken.setList(body.notCounted(), who.getName());
        return list();
    }
}
