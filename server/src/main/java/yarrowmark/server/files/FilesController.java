package yarrowmark.server.files;

import jakarta.validation.constraints.Pattern;
import org.springframework.http.HttpHeaders;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;

@RestController
class FilesController {
    private final Files files;

    FilesController(Files files) {
        this.files = files;
    }

    /** A content never changes under its hash. Were it opened on its own, nothing in it could act. */
    @GetMapping("/api/files/{hash}")
    ResponseEntity<byte[]> file(
            @PathVariable @Pattern(regexp = "[0-9a-f]{64}", message = "must be a hash") String hash) {
        Files.Served file = files.file(hash);
        return ResponseEntity.ok()
                .header(HttpHeaders.CONTENT_TYPE, file.contentType())
                .header(HttpHeaders.CACHE_CONTROL, "private, max-age=31536000, immutable")
                .header("Content-Security-Policy", "default-src 'none'; sandbox")
                .body(file.bytes());
    }
}
