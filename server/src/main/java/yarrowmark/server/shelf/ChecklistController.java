package yarrowmark.server.shelf;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.security.Principal;
import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import yarrowmark.server.shelf.model.DeviceClass;

@RestController
@RequestMapping("/api/checklists")
class ChecklistController {
    record ChecklistBody(
            @NotNull @Size(max = Checklists.MOST_ITEMS) List<@NotNull @Size(max = 200) String> seen,
            @NotNull @Size(max = Checklists.MOST_ITEMS) List<@NotNull @Size(max = 200) String> items) {}

    private final Checklists checklists;

    ChecklistController(Checklists checklists) {
        this.checklists = checklists;
    }

    @GetMapping
    List<Checklists.Checklist> all() {
        return checklists.all();
    }

    @PutMapping("/{deviceClass}")
    List<Checklists.Checklist> change(
            @PathVariable DeviceClass deviceClass, @Valid @RequestBody ChecklistBody body, Principal who) {
        checklists.change(deviceClass, body.seen(), body.items(), who.getName());
        return checklists.all();
    }
}
