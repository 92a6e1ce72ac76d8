package yarrowmark.server.writeup;

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
@RequestMapping("/api/write-up-kinds")
class WriteUpKindController {
    /** @param revision that was looked at; 0 for a new one */
    record KindBody(
            @NotBlank @PlainLine @Size(max = 80) String name,
            @NotNull WriteUpKind.Begins begins,
            @NotNull @Size(min = 1, max = 40) List<WriteUpKinds.@Valid @NotNull KindPiece> pieces,
            int revision) {}

    private final WriteUpKinds kinds;

    WriteUpKindController(WriteUpKinds kinds) {
        this.kinds = kinds;
    }

    @GetMapping
    List<WriteUpKinds.KindRow> writeUpKinds() {
        return kinds.all();
    }

    @PostMapping
    WriteUpKinds.KindRow makeWriteUpKind(@Valid @RequestBody KindBody body, Principal who) {
        return kinds.make(body.name(), body.begins(), body.pieces(), who.getName());
    }

    @PutMapping("/{id}")
    WriteUpKinds.KindRow changeWriteUpKind(@PathVariable long id, @Valid @RequestBody KindBody body, Principal who) {
        return kinds.change(id, body.name(), body.begins(), body.pieces(), body.revision(), who.getName());
    }

    @DeleteMapping("/{id}")
    void removeWriteUpKind(@PathVariable long id, Principal who) {
        kinds.remove(id, who.getName());
    }

    @PostMapping("/{id}/restore")
    void restoreWriteUpKind(@PathVariable long id, Principal who) {
        kinds.restore(id, who.getName());
    }
}
