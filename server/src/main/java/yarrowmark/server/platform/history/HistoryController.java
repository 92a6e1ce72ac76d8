package yarrowmark.server.platform.history;

import jakarta.validation.Valid;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Pattern;
import java.security.Principal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import yarrowmark.server.platform.Page;

@RestController
@RequestMapping("/api/history/{subject}/{id}")
class HistoryController {
    record UndoBody(@NotNull @Pattern(regexp = "\\d{1,18}", message = "must be the id of a change") String change) {}

    private final History history;

    HistoryController(History history) {
        this.history = history;
    }

    @GetMapping
    Page<History.ChangeSet> history(
            @PathVariable String subject,
            @PathVariable long id,
            @RequestParam(defaultValue = "0") @Min(0) @Max(100_000) int page,
            @RequestParam(defaultValue = "20") @Min(1) @Max(100) int size) {
        return history.of(subject, id, page, size);
    }

    @PostMapping("/undo")
    Page<History.ChangeSet> undo(
            @PathVariable String subject, @PathVariable long id, @Valid @RequestBody UndoBody body, Principal who) {
        history.undo(subject, id, Long.parseLong(body.change()), who.getName());
        return history.of(subject, id, 0, 20);
    }
}
