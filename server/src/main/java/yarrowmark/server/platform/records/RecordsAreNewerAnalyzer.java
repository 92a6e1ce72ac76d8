package yarrowmark.server.platform.records;

import org.springframework.boot.diagnostics.AbstractFailureAnalyzer;
import org.springframework.boot.diagnostics.FailureAnalysis;

/** Says at the start, in words, why this program leaves records alone. */
class RecordsAreNewerAnalyzer extends AbstractFailureAnalyzer<SchemaUpdate.RecordsAreNewer> {
    @Override
    protected FailureAnalysis analyze(Throwable failure, SchemaUpdate.RecordsAreNewer cause) {
        return new FailureAnalysis(
                cause.getMessage(), "Start the newer program again. Nothing of the records was changed.", cause);
    }
}
