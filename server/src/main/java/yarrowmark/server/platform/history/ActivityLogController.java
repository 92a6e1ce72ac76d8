package yarrowmark.server.platform.history;

import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.Size;
import java.time.Instant;
import java.time.LocalDate;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

@RestController
class ActivityLogController {
    private final ActivityLog doings;

    ActivityLogController(ActivityLog doings) {
        this.doings = doings;
    }

    /** Who did what, the newest first. */
    @GetMapping("/api/doings")
    ActivityLog.Log log(
            @RequestParam(required = false) @Size(max = 80) @Nullable String person,
            @RequestParam(required = false) @Size(max = 30) @Nullable String subject,
            @RequestParam(required = false) @Nullable LocalDate from,
            @RequestParam(required = false) @Nullable LocalDate to,
            @RequestParam(required = false) @Nullable Instant since,
            @RequestParam(defaultValue = "0") @Min(0) @Max(100_000) int page,
            @RequestParam(defaultValue = "50") @Min(1) @Max(200) int size) {
        return doings.log(new ActivityLog.Asked(person, subject, from, to, since), page, size);
    }
}
