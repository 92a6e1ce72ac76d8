package yarrowmark.server.ledger.table;

import java.util.List;
import yarrowmark.core.table.TableLayout;
import yarrowmark.core.table.TableReading;
import yarrowmark.server.ledger.exchange.LedgerImport;

/**
 * How a file is read, and what would be made of it. Nothing of it is stored yet.
 *
 * @param sheets   of the file, by name; one is read at a time
 * @param cells    of the table turned so that devices stand below each other, the first rows of it
 * @param rows     how many it has
 * @param devices  how many rows of them
 * @param scores   how many values
 * @param states   how many runs without one
 * @param remarks  the first of the cells that are kept as a state or cannot be read; unread counts the latter
 * @param outcome  what storing it would make; absent while something has to be said first
 * @param toSay    what has to be said first, in words
 */
public record TableAnswer(
        String id,
        String name,
        List<SheetPart> sheets,
        int sheet,
        TableLayout layout,
        List<List<String>> cells,
        int rows,
        int devices,
        int tests,
        int scores,
        int states,
        int unread,
        List<TableReading.Remark> remarks,
        List<NameQuestion> names,
        List<TwiceQuestion> twice,
        List<TableReading.Check> checks,
        List<String> toSay,
        LedgerImport.@org.jspecify.annotations.Nullable ImportOutcome outcome) {
    public record SheetPart(String name, int rows, int columns) {}

    /** A name that may mean a model of the shelf. */
    public record NameQuestion(String name, String maker, String model) {}

    /** Rows with the same model, the same facts and the same day: they become sessions of one configuration. */
    public record TwiceQuestion(String name, int times) {}
}
