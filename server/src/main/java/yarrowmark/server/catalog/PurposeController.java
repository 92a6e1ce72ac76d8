package yarrowmark.server.catalog;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.security.Principal;
import java.util.List;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import yarrowmark.server.platform.PlainLine;

@RestController
@RequestMapping("/api/purposes")
class PurposeController {
    record PurposeBody(@NotBlank @PlainLine @Size(max = 100) String name, @NotNull PurposeWeighing weighing) {}

    private final Purposes purposes;

    PurposeController(Purposes purposes) {
        this.purposes = purposes;
    }

    @GetMapping
    List<PurposeRow> purposes() {
        return purposes.all();
    }

    @PostMapping
    PurposeRow make(@Valid @RequestBody PurposeBody body, Principal who) {
        return purposes.make(body.name().strip(), body.weighing(), who.getName());
    }

    @PutMapping("/{id}")
    PurposeRow change(@PathVariable long id, @Valid @RequestBody PurposeBody body, Principal who) {
        return purposes.change(id, body.name().strip(), body.weighing(), who.getName());
    }

    @DeleteMapping("/{id}")
    void retire(@PathVariable long id, Principal who) {
        purposes.retire(id, who.getName());
    }
}
