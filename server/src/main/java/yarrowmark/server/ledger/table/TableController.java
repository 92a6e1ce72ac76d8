package yarrowmark.server.ledger.table;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.security.Principal;
import java.time.Clock;
import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import yarrowmark.core.table.LongTable;
import yarrowmark.core.table.Table;
import yarrowmark.core.table.TableLayout;
import yarrowmark.server.ledger.exchange.ImportJobs;
import yarrowmark.server.ledger.exchange.ImportReading;
import yarrowmark.server.platform.Problem;

/** Spreadsheets and other tables that come in. */
@RestController
@RequestMapping("/api/tables")
class TableController {
    /** @param layout absent for what the program proposes; one without columns says only which way devices stand */
    record TableQuestion(int sheet, @Nullable @Valid TableLayout layout) {}

    record TableOrder(int sheet, @NotNull @Valid TableLayout layout) {}

    private static final int LONGEST_NAME = 120;

    private final TableUploads uploads;
    private final TableImport imports;
    private final ImportJobs jobs;
    private final Clock clock;

    TableController(TableUploads uploads, TableImport imports, ImportJobs jobs, Clock clock) {
        this.uploads = uploads;
        this.imports = imports;
        this.jobs = jobs;
        this.clock = clock;
    }

    /**
     * @param name    of the file, or what was pasted is to be called
     * @param written the day on which the file was, as 2026-03-12; today where nobody knows
     */
    @PostMapping
    TableAnswer read(
            @RequestBody byte[] file,
            @RequestParam(defaultValue = "Pasted table") String name,
            @RequestParam(required = false) @Nullable String written,
            Principal who) {
        String called = name.length() > LONGEST_NAME ? name.substring(0, LONGEST_NAME) : name;
        List<Table> sheets = TableFile.read(file, called.replaceFirst("\\.[A-Za-z]{2,4}$", ""));
        if (isLedgersOwn(sheets.get(0))) {
            throw Problem.invalid(
                    "ledgers-own-form", "This table has the columns of the ledger's own CSV, so it is read as one.");
        }
        List<Table> wide =
                sheets.stream().map(t -> LongTable.widened(t).orElse(t)).toList();
        TableUploads.Upload upload = new TableUploads.Upload(who.getName(), called, day(written), wide);
        return imports.answer(uploads.keep(upload), upload, 0, null);
    }

    /** What the ledger itself has written needs nobody to say what is what in it. */
    private static boolean isLedgersOwn(Table table) {
        return table.rows().get(0).stream()
                .map(c -> c.text().toLowerCase(Locale.ROOT))
                .toList()
                .containsAll(ImportReading.NEEDED);
    }

    private String day(@Nullable String written) {
        LocalDate today = LocalDate.now(clock);
        try {
            LocalDate day = written == null ? today : LocalDate.parse(written);
            return (day.isAfter(today) ? today : day).toString();
        } catch (DateTimeParseException e) {
            return today.toString();
        }
    }

    @PostMapping("/{id}")
    TableAnswer read(@PathVariable String id, @RequestBody @Valid TableQuestion question, Principal who) {
        return imports.answer(id, uploads.find(id, who.getName()), question.sheet(), question.layout());
    }

    /** Begins to store it; how far it is, is asked as for every import. */
    @PostMapping("/{id}/import")
    ImportJobs.ImportState store(@PathVariable String id, @RequestBody @Valid TableOrder order, Principal who) {
        TableUploads.Upload upload = uploads.find(id, who.getName());
        String person = who.getName();
        return jobs.begin(progress -> imports.store(upload, order.sheet(), order.layout(), person, progress), person);
    }
}
