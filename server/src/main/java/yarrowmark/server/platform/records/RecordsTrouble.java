package yarrowmark.server.platform.records;

import java.io.IOException;
import java.sql.SQLException;
import java.sql.SQLNonTransientConnectionException;
import java.sql.SQLRecoverableException;
import java.sql.SQLTransientConnectionException;
import java.util.Locale;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.health.DiskSpace;

/** What stands in the way of the records, in words: the database is away, or the disk is full. */
public final class RecordsTrouble {
    static final String AWAY = "records-away";
    static final String FULL = "disk-full";

    /** What MariaDB says when it cannot write: no space for a table, a temporary file, or the disk's own number. */
    private static final Set<Integer> NO_SPACE = Set.of(3, 28, 1021, 1026, 1114);

    private static final Set<Integer> BUSY = Set.of(1205, 1213, 1040);

    private RecordsTrouble() {}

    /** With less than this MariaDB stops by itself as soon as a table has to grow. */
    private static final long NOTHING_LEFT = 64L << 20;

    /**
     * @param room of the disk with the records
     * @return null where the records have nothing to do with it
     */
    public static @Nullable Problem of(Throwable e, DiskSpace.Room room) {
        int code = TransactionRetry.code(e);
        if (NO_SPACE.contains(code) || saysNoSpace(e)) {
            return new Problem(
                    HttpStatus.INSUFFICIENT_STORAGE,
                    FULL,
                    "The disk with the records is full, so this was not stored. What was confirmed before is kept. Free some space, then try again.");
        }
        if (BUSY.contains(code)) {
            return new Problem(
                    HttpStatus.SERVICE_UNAVAILABLE,
                    "records-busy",
                    "Somebody else changes the same records and takes long. Nothing was changed; try again in a moment.");
        }
        if (isAway(e) && room.free() < NOTHING_LEFT) {
            return new Problem(
                    HttpStatus.INSUFFICIENT_STORAGE,
                    FULL,
                    "The disk with the records is full, and their database has stopped. Nothing of this was stored; what was confirmed before is kept. Free some space: it then starts again by itself.");
        }
        if (isAway(e)) {
            return new Problem(
                    HttpStatus.SERVICE_UNAVAILABLE,
                    AWAY,
                    "The records are out of reach just now: their database does not answer. What was confirmed is kept. Views try again by themselves; what you pressed can be pressed again in a moment.");
        }
        return null;
    }

    private static boolean isAway(Throwable e) {
        for (Throwable t = e; t != null; t = t.getCause()) {
            if (t instanceof SQLNonTransientConnectionException
                    || t instanceof SQLTransientConnectionException
                    || t instanceof SQLRecoverableException
                    || (t instanceof SQLException sql && isClosed(sql))) {
                return true;
            }
        }
        return false;
    }

    /** A connection that broke is taken out of the pool, and what is asked of it after that is told no more than this. */
    private static boolean isClosed(SQLException e) {
        return (e.getSQLState() != null && e.getSQLState().startsWith("08"))
                || "Connection is closed".equals(e.getMessage());
    }

    private static boolean saysNoSpace(Throwable e) {
        for (Throwable t = e; t != null; t = t.getCause()) {
            if (t instanceof IOException
                    && Problem.words(t).toLowerCase(Locale.ROOT).contains("no space left")) {
                return true;
            }
        }
        return false;
    }
}
