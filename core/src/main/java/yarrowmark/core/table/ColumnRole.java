package yarrowmark.core.table;

/** What a column of a table says of the device of its row. */
public enum ColumnRole {
    MAKER,
    /** The model; its maker stands before it where no column has the maker. */
    MODEL,
    DEVICE_CLASS,
    /** Which specimen of the model. */
    UNIT,
    DATE,
    SESSION,
    /** A fact of the configuration, by its key. */
    FACT,
    /** Something of the model itself, such as its price, by the name of the field. */
    MODEL_FIELD,
    NOTE,
    /** Scores of a test. */
    TEST,
    /** A mean or total of the sheet's own: not stored, but held against what its row says. */
    CHECK,
    IGNORED
}
