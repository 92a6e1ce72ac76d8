package yarrowmark.server.evidence;

import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Size;
import java.nio.charset.StandardCharsets;
import java.security.Principal;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

@RestController
@RequestMapping("/api")
class EvidenceController {
    private final EvidenceShelf shelf;

    EvidenceController(EvidenceShelf shelf) {
        this.shelf = shelf;
    }

    @GetMapping("/sessions/{id}/evidence")
    List<EvidenceShelf.EvidenceRow> of(@PathVariable long id) {
        return shelf.of(id);
    }

    /** @param run to which it belongs; the whole session where there is none */
    @PostMapping("/sessions/{id}/evidence")
    List<EvidenceShelf.EvidenceRow> keep(
            @PathVariable long id,
            @RequestParam @NotBlank @Size(max = 1000) String name,
            @RequestParam(required = false) @Nullable Long run,
            @RequestBody byte[] file,
            Principal who) {
        shelf.keep(id, run, name, file, who.getName());
        return shelf.of(id);
    }

    /** Pictures and text are shown, everything else is only saved; opened on its own, nothing in it can act. */
    @GetMapping("/evidence/{id}")
    ResponseEntity<byte[]> open(@PathVariable long id) {
        EvidenceShelf.Opened opened = shelf.open(id);
        String type = opened.row().contentType();
        ContentDisposition how = (type.startsWith("image/") || type.startsWith("text/plain")
                        ? ContentDisposition.inline()
                        : ContentDisposition.attachment())
                .filename(opened.row().name(), StandardCharsets.UTF_8)
                .build();
        return ResponseEntity.ok()
                .header(HttpHeaders.CONTENT_TYPE, type)
                .header(HttpHeaders.CONTENT_DISPOSITION, how.toString())
                .header(HttpHeaders.CACHE_CONTROL, "private, max-age=3600")
                .header("Content-Security-Policy", "default-src 'none'; sandbox")
                .body(opened.bytes());
    }

    @DeleteMapping("/evidence/{id}")
    void remove(@PathVariable long id, Principal who) {
        shelf.remove(id, true, who.getName());
    }

    @PostMapping("/evidence/{id}/restore")
    void restore(@PathVariable long id, Principal who) {
        shelf.remove(id, false, who.getName());
    }
}
