package yarrowmark.server.bench;

import java.nio.file.Files;
import java.nio.file.Path;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.core.io.FileSystemResource;
import org.springframework.core.io.Resource;
import org.springframework.http.HttpHeaders;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ResponseBody;
import yarrowmark.server.platform.Problem;

/** The program that lets a computer join without a browser. Anybody may have it: it does nothing without a code. */
@Controller
class RunnerDownload {
    private static final String FOLDER = "yarrow-runner-linux-x64.tar.gz";

    private final Path jar;

    RunnerDownload(@Value("${yarrowmark.runner:}") String jar) {
        this.jar = Path.of(jar);
    }

    /** @param jar whether it can be had. @param folder whether one with a Java of its own can */
    record RunnerOffered(boolean jar, boolean folder) {}

    @GetMapping("/api/bench/runner")
    @ResponseBody
    RunnerOffered runnerOffered() {
        return new RunnerOffered(Files.isRegularFile(jar), Files.isRegularFile(jar.resolveSibling(FOLDER)));
    }

    @GetMapping("/runner/yarrow-runner.jar")
    ResponseEntity<Resource> runner() {
        return offered(jar, "yarrow-runner.jar", "application/java-archive");
    }

    /** The same with a Java of its own, where the program was built on a machine that could make one. */
    @GetMapping("/runner/" + FOLDER)
    ResponseEntity<Resource> folder() {
        return offered(jar.resolveSibling(FOLDER), FOLDER, "application/gzip");
    }

    private static ResponseEntity<Resource> offered(Path file, String name, String type) {
        if (!Files.isRegularFile(file)) {
            throw Problem.notFound("runner", name);
        }
        return ResponseEntity.ok()
                .header(HttpHeaders.CONTENT_TYPE, type)
                .header(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"" + name + "\"")
                .header("Content-Security-Policy", "default-src 'none'; sandbox")
                .body(new FileSystemResource(file));
    }
}
