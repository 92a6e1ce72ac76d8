package yarrowmark.server.ledger.exchange;

import jakarta.validation.Valid;
import java.nio.charset.StandardCharsets;
import java.security.Principal;
import java.util.List;
import org.springdoc.core.annotations.ParameterObject;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.StreamingResponseBody;
import yarrowmark.server.ledger.line.LedgerConditions;
import yarrowmark.server.ledger.line.LedgerFilter;

/** The ledger as a file, out and in. */
@RestController
@RequestMapping("/api")
class ExchangeController {
    private final LedgerCsv csv;
    private final ImportJobs imports;
    private final LedgerConditions conditions;
    private final ImportUndo undo;

    ExchangeController(LedgerCsv csv, ImportJobs imports, LedgerConditions conditions, ImportUndo undo) {
        this.undo = undo;
        this.csv = csv;
        this.imports = imports;
        this.conditions = conditions;
    }

    /** The same lines as a file, all of them, oldest first. */
    @GetMapping(path = "/ledger/csv", produces = "text/csv")
    ResponseEntity<StreamingResponseBody> csv(@Valid @ParameterObject LedgerFilter filter) {
        // Asked now, so that a filter that makes no sense is an answer and not half a file.
        conditions.of(filter);
        return ResponseEntity.ok()
                .header(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"yarrowmark-ledger.csv\"")
                .contentType(new MediaType("text", "csv", StandardCharsets.UTF_8))
                .body(to -> csv.write(filter, to));
    }

    /**
     * Begins to read a file; the answer says how far it is, and is asked for again until it is done.
     *
     * @param make  whether unknown models, suites and tests may be made
     * @param store whether the whole file is stored, or nothing and only looked at
     */
    @PostMapping(path = "/ledger/import")
    ImportJobs.ImportState beginImport(
            @RequestBody byte[] file,
            @RequestParam(defaultValue = "false") boolean make,
            @RequestParam(defaultValue = "false") boolean store,
            Principal who) {
        return imports.begin(file, make, store, who.getName());
    }

    @GetMapping("/ledger/import/{id}")
    ImportJobs.ImportState importState(@PathVariable String id, Principal who) {
        return imports.state(id, who.getName());
    }

    @DeleteMapping("/ledger/import/{id}")
    ImportJobs.ImportState cancelImport(@PathVariable String id, Principal who) {
        return imports.cancel(id, who.getName());
    }

    /** Imports of the last week, the newest first. */
    @GetMapping("/ledger/imports")
    List<ImportUndo.PastImport> pastImports() {
        return undo.all();
    }

    /** A whole import no longer counts. */
    @PostMapping("/ledger/imports/{id}/undo")
    ImportUndo.Undone undoImport(@PathVariable long id, Principal who) {
        return undo.undo(id, who.getName());
    }

    /** It counts again. */
    @DeleteMapping("/ledger/imports/{id}/undo")
    ImportUndo.Undone restoreImport(@PathVariable long id, Principal who) {
        return undo.restore(id, who.getName());
    }
}
