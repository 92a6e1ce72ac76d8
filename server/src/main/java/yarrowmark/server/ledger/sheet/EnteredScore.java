package yarrowmark.server.ledger.sheet;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.entry.KindText;
import yarrowmark.core.entry.ScoreText;
import yarrowmark.core.entry.SeveralNumbers;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.catalog.TestRow;
import yarrowmark.server.ledger.record.NewReading;

/**
 * What was typed into a cell of the score sheet.
 *
 * @param read    of the number that stands for the test
 * @param further other numbers of the run
 * @param refused why one of these is none
 */
record EnteredScore(KindText.Read read, List<NewReading> further, @Nullable String refused) {
    /** A test with several numbers takes them in one text, in their order: "57.8 / 17.1". */
    static EnteredScore of(TestRow test, String text) {
        MetricRow metric = ScoreSheet.main(test);
        List<MetricRow> others = ScoreSheet.further(test);
        List<String> parts = others.isEmpty() ? List.of(text) : SeveralNumbers.parts(text);
        KindText.Read read = KindText.read(parts.get(0), metric.kind(), metric.unit(), metric.choices());
        List<NewReading> further = new ArrayList<>();
        if (!(read.said() instanceof ScoreText.Value)) {
            // A reason has slashes and semicolons of its own.
            return new EnteredScore(KindText.read(text, metric.kind(), metric.unit(), metric.choices()), further, null);
        }
        if (parts.size() > 1 + others.size()) {
            return new EnteredScore(
                    read,
                    further,
                    test.name() + " has " + (1 + others.size()) + " numbers, and " + parts.size() + " were given.");
        }
        for (int i = 1; i < parts.size(); i++) {
            MetricRow other = others.get(i - 1);
            if (parts.get(i).isEmpty()) {
                continue;
            }
            ScoreText.Said said = ScoreText.read(parts.get(i), other.unit());
            if (!(said instanceof ScoreText.Value v)) {
                return new EnteredScore(
                        read,
                        further,
                        other.name() + ": "
                                + (said instanceof ScoreText.NotUnderstood not
                                        ? not.reason()
                                        : "a dash leaves it out."));
            }
            if (other.unusable(v.value()) != null) {
                return new EnteredScore(read, further, other.name() + ": " + other.unusable(v.value()));
            }
            further.add(new NewReading(other.key(), v.value(), v.resolution(), List.of()));
        }
        return new EnteredScore(read, further, null);
    }
}
