package yarrowmark.server.ledger.line;

import static yarrowmark.server.platform.Require.require;

import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.entry.KindText;
import yarrowmark.core.entry.ScoreText;
import yarrowmark.core.measure.Measured;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.ledger.record.ReadingCorrections;
import yarrowmark.server.platform.Problem;

/** Reads what a person says a reading should have been, and puts it in its place. */
@Service
class Corrections {
    private final ReadingCorrections readings;
    private final LedgerPages pages;

    Corrections(ReadingCorrections readings, LedgerPages pages) {
        this.readings = readings;
        this.pages = pages;
    }

    /** @return the id of the reading that counts now */
    @Transactional
    long correct(long readingId, String text, String reason, String person) {
        MetricRow metric = pages.reading(readingId).metric();
        KindText.Read read = KindText.read(text, metric.kind(), metric.unit(), metric.choices());
        if (read.said() instanceof ScoreText.NotUnderstood not) {
            throw Problem.invalid("not-understood", not.reason());
        }
        if (!(read.said() instanceof ScoreText.Value v)) {
            throw Problem.invalid(
                    "not-a-value", "A reading is corrected by a value. If there is none, set it aside and say why.");
        }
        if (metric.unusable(v.value()) != null) {
            throw Problem.invalid("not-a-score", require(metric.unusable(v.value())));
        }
        return readings.correct(
                readingId,
                new Measured(v.value(), v.resolution()),
                read.note().isEmpty() ? null : read.note(),
                reason,
                person);
    }
}
