package yarrowmark.server.site;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.locks.ReentrantLock;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.springframework.http.HttpHeaders;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.StreamingResponseBody;
import yarrowmark.server.platform.Problem;

/** The public side as one file, to be unpacked on any web host. */
@RestController
class SiteController {
    private final SiteFolder folder;
    /** One at a time: each is everything that was ever published. */
    private final ReentrantLock making = new ReentrantLock();

    SiteController(SiteFolder folder) {
        this.folder = folder;
    }

    @GetMapping("/api/site.zip")
    ResponseEntity<StreamingResponseBody> zip() throws IOException {
        Path file = made();
        StreamingResponseBody body = out -> {
            try {
                Files.copy(file, out);
            } finally {
                Files.deleteIfExists(file);
            }
        };
        return ResponseEntity.ok()
                .header(HttpHeaders.CONTENT_TYPE, "application/zip")
                .header(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"site.zip\"")
                .contentLength(Files.size(file))
                .body(body);
    }

    /** Whole before anything is sent: half a folder would look like a whole one. */
    private Path made() throws IOException {
        Path file = Files.createTempFile("yarrowmark-site", ".zip");
        making.lock();
        try (OutputStream out = Files.newOutputStream(file);
                ZipOutputStream zip = new ZipOutputStream(out)) {
            folder.into((path, bytes) -> {
                zip.putNextEntry(new ZipEntry(path));
                zip.write(bytes);
                zip.closeEntry();
            });
        } catch (RuntimeException e) {
            Files.deleteIfExists(file);
            throw e;
        } catch (IOException e) {
            Files.deleteIfExists(file);
            throw Problem.conflict("site-not-made", "The folder could not be made: " + e.getMessage() + ".");
        } finally {
            making.unlock();
        }
        return file;
    }
}
