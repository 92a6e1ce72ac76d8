package yarrowmark.server.writeup;

import jakarta.validation.Valid;
import jakarta.validation.constraints.Size;
import java.security.Principal;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import yarrowmark.server.platform.PlainLine;

@RestController
class LookController {
    record LookBody(
            @Nullable @Size(max = 7) String accent,
            @Nullable @Size(max = 1_500_000) String mark,
            @Nullable @PlainLine @Size(max = 200) String licence,
            @Nullable @PlainLine @Size(max = 200) String address) {}

    private final LabLook look;

    LookController(LabLook look) {
        this.look = look;
    }

    @GetMapping("/api/look")
    LabLook.LookNow look() {
        return look.now();
    }

    @PutMapping("/api/look")
    LabLook.LookNow changeLook(@Valid @RequestBody LookBody body, Principal who) {
        return look.change(body.accent(), body.mark(), body.licence(), body.address(), who.getName());
    }
}
