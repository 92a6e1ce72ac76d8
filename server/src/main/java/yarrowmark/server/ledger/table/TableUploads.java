package yarrowmark.server.ledger.table;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Duration;
import java.util.List;
import java.util.UUID;
import org.springframework.stereotype.Component;
import yarrowmark.core.table.Table;
import yarrowmark.server.platform.Problem;

/** Tables that somebody looks at. Kept in memory and forgotten after a while: their file is still where it was. */
@Component
class TableUploads {
    /** @param written the day on which the file was, as 2026-03-12 */
    record Upload(String person, String name, String written, List<Table> sheets) {
        int cells() {
            return sheets.stream()
                    .mapToInt(t -> t.rows().stream().mapToInt(List::size).sum())
                    .sum();
        }
    }

    private static final Duration KEPT = Duration.ofHours(2);
    /** Of all that are looked at, in cells: about 200 bytes each. */
    private static final long MOST_CELLS = 3L * TableFile.MOST_CELLS / 2;

    private final Cache<String, Upload> uploads = Caffeine.newBuilder()
            .expireAfterAccess(KEPT)
            .maximumWeight(MOST_CELLS)
            .weigher((String id, Upload upload) -> Math.max(1, upload.cells()))
            .build();

    String keep(Upload upload) {
        String id = UUID.randomUUID().toString();
        uploads.put(id, upload);
        return id;
    }

    Upload find(String id, String person) {
        Upload upload = uploads.getIfPresent(id);
        if (upload == null || !upload.person().equals(person)) {
            throw Problem.notFound("table", id);
        }
        return upload;
    }
}
