package yarrowmark.server.ledger.line;

/** By which column the ledger is listed; the newest first among equals. */
public enum LedgerOrder {
    TIME("r.finishedAt"),
    MODEL("k.name", "m.name", "c.name"),
    TEST("t.name", "x.name"),
    VALUE("rd.value"),
    RUN("r.runNumber"),
    PERSON("r.person"),
    STATE("r.state");

    private final String[] columns;

    LedgerOrder(String... columns) {
        this.columns = columns;
    }

    /** What is not known comes last, whichever way. */
    String orderBy(boolean falling) {
        StringBuilder order = new StringBuilder(" order by ");
        for (String column : columns) {
            order.append(column).append(falling ? " desc" : " asc").append(this == TIME ? ", " : " nulls last, ");
        }
        return order.append(this == TIME ? "r.id" + (falling ? " desc" : " asc") : "r.finishedAt desc, r.id desc")
                .toString();
    }
}
