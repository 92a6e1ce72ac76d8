package yarrowmark.server.ledger.line;

import static yarrowmark.server.platform.Require.require;

import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.server.ledger.mark.ReadingMarks;
import yarrowmark.server.platform.Page;

/** Puts beside the lines of a page why their readings may not be sound. */
@Service
class MarkedLines {
    private final ReadingMarks marks;

    MarkedLines(ReadingMarks marks) {
        this.marks = marks;
    }

    @Transactional(readOnly = true)
    Page<LedgerRow> marked(Page<LedgerRow> page) {
        Set<ReadingMarks.HeldSample> wanted = page.rows().stream()
                .filter(r -> r.readingId() != null && r.asideReason() == null)
                .map(r -> new ReadingMarks.HeldSample(r.configurationId(), require(r.metricId())))
                .collect(Collectors.toSet());
        if (wanted.isEmpty()) {
            return page;
        }
        Map<Long, List<ReadingMarks.ReadingMark>> found = marks.marks(wanted);
        return new Page<>(
                page.rows().stream()
                        .map(r -> r.readingId() == null
                                ? r
                                : r.with(ReadingMarks.withDisturbance(
                                        found.getOrDefault(r.readingId(), List.of()), r.disturbed())))
                        .toList(),
                page.page(),
                page.size(),
                page.total());
    }
}
