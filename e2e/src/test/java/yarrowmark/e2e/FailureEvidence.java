package yarrowmark.e2e;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.extension.AfterTestExecutionCallback;
import org.junit.jupiter.api.extension.ExtensionContext;

/**
 * Of a test that failed, keeps what each of its browsers showed and complained about, and what its programs wrote, below
 * target/failures. bin/test says where that is.
 */
public final class FailureEvidence implements AfterTestExecutionCallback {
    static final Path FAILURES = Path.of("target", "failures");

    @Override
    public void afterTestExecution(ExtensionContext context) throws IOException {
        if (context.getExecutionException().isEmpty()) {
            return;
        }
        String name = context.getRequiredTestClass().getSimpleName() + "."
                + context.getRequiredTestMethod().getName();
        Path folder = Files.createDirectories(FAILURES.resolve(name));
        List<Browser> open = Browser.openInThisThread();
        for (int i = 0; i < open.size(); i++) {
            open.get(i).keepEvidence(folder.resolve("browser-" + (i + 1)));
        }
        Program.keepLogs(folder);
    }
}
