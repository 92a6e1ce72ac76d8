package yarrowmark.server.analysis;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import yarrowmark.server.shelf.DeviceClass;

@RestController
@RequestMapping("/api/standings")
class StandingsController {
    private final StandingsService service;

    StandingsController(StandingsService service) {
        this.service = service;
    }

    @GetMapping
    Standings standings(@RequestParam(defaultValue = "") List<DeviceClass> deviceClass, @RequestParam(required = false) @Nullable Long purpose,
                        @RequestParam(required = false) @Nullable Long metric, @RequestParam(required = false) @Nullable Long base) {
        return service.standings(new StandingsService.Question(deviceClass, purpose, metric, base));
    }
}
