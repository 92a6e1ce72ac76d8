package yarrowmark.server.ledger.exchange;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyBoolean;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.CountDownLatch;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.health.DiskSpace;

class ImportJobsTest {
    private final LedgerImport imports = mock(LedgerImport.class);
    private ImportJobs jobs = new ImportJobs(imports, mock(DiskSpace.class));

    @AfterEach
    void stop() {
        jobs.stop();
    }

    private void begin() {
        jobs.begin(new byte[] {1}, true, true, "wren");
    }

    @Test
    void aFileThatFoundNoRoomFreesItsPlace(@TempDir Path folder) throws IOException {
        Path later = folder.resolve("not yet");
        jobs.stop();
        jobs = new ImportJobs(imports, mock(DiskSpace.class), later);
        for (int i = 0; i < 9; i++) {
            assertThatThrownBy(this::begin).isInstanceOfSatisfying(Problem.class, p -> assertThat(p.code())
                    .isEqualTo("no-room"));
        }
        Files.createDirectory(later);
        begin();
    }

    /** Five that wait are the most; each is one that is really there. */
    @Test
    void fiveMayWaitAndTheSixthIsToldSo() {
        CountDownLatch go = new CountDownLatch(1);
        when(imports.store(any(), anyBoolean(), anyString(), any())).thenAnswer(call -> {
            go.await();
            throw Problem.invalid("stopped", "Stopped.");
        });
        for (int i = 0; i < 5; i++) {
            begin();
        }
        assertThatThrownBy(this::begin)
                .isInstanceOfSatisfying(Problem.class, p -> assertThat(p.code()).isEqualTo("imports-waiting"));
        go.countDown();
    }
}
