package yarrowmark.server.ledger.line;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Pattern;
import jakarta.validation.constraints.Size;
import java.security.Principal;
import java.util.List;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import yarrowmark.server.platform.PlainLine;

/** A person's own saved views of the ledger. */
@RestController
@RequestMapping("/api/ledger/views")
class SavedViewController {
    record ViewBody(
            @NotBlank @PlainLine @Size(max = 80) String name,
            @NotNull
                    @Size(max = 2000)
                    @Pattern(
                            regexp = "[A-Za-z0-9%&=_.~+:*-]*",
                            message = "must be the part of an address behind the question mark")
                    String address) {}

    private final SavedViews views;

    SavedViewController(SavedViews views) {
        this.views = views;
    }

    @GetMapping
    List<SavedViews.View> views(Principal who) {
        return views.of(who.getName());
    }

    @PostMapping
    List<SavedViews.View> save(@Valid @RequestBody ViewBody body, Principal who) {
        return views.save(body.name(), body.address(), who.getName());
    }

    @DeleteMapping("/{id}")
    List<SavedViews.View> remove(@PathVariable long id, Principal who) {
        return views.remove(id, who.getName());
    }
}
