package yarrowmark.server.platform.records;

import static org.assertj.core.api.Assertions.assertThat;

import java.sql.SQLException;
import java.sql.SQLNonTransientConnectionException;
import org.junit.jupiter.api.Test;
import org.springframework.http.HttpStatus;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.health.DiskSpace;

/** What is said when the records cannot be written or reached. */
class RecordsTroubleTest {
    private static final DiskSpace.Room PLENTY = new DiskSpace.Room(100L << 30, 200L << 30);
    private static final DiskSpace.Room NONE = new DiskSpace.Room(0, 200L << 30);

    private static Problem of(Exception e, DiskSpace.Room room) {
        return java.util.Objects.requireNonNull(RecordsTrouble.of(new IllegalStateException(e), room));
    }

    @Test
    void aFullDiskIsSaidAlsoWhereItStoppedTheDatabase() {
        Problem full = of(new SQLException("The table is full", "HY000", 1114), NONE);
        assertThat(full.status()).isEqualTo(HttpStatus.INSUFFICIENT_STORAGE);
        Problem stopped = of(new SQLNonTransientConnectionException("Connection refused"), NONE);
        assertThat(stopped.status()).isEqualTo(HttpStatus.INSUFFICIENT_STORAGE);
        assertThat(stopped.getMessage())
                .contains("disk with the records is full")
                .contains("starts again by itself");
    }

    @Test
    void withRoomADatabaseThatDoesNotAnswerIsAway() {
        Problem away = of(new SQLNonTransientConnectionException("Connection refused"), PLENTY);
        assertThat(away.status()).isEqualTo(HttpStatus.SERVICE_UNAVAILABLE);
        assertThat(away.getMessage()).contains("out of reach");
        Problem broken = of(new SQLException("Connection is closed"), PLENTY);
        assertThat(broken.status())
                .as("what the pool says of one that broke")
                .isEqualTo(HttpStatus.SERVICE_UNAVAILABLE);
        Problem lost = of(new SQLException("Communications link failure", "08S01"), PLENTY);
        assertThat(lost.status()).isEqualTo(HttpStatus.SERVICE_UNAVAILABLE);
        assertThat(RecordsTrouble.of(new SQLException("no such column", "42S22"), PLENTY))
                .isNull();
        assertThat(RecordsTrouble.of(new IllegalStateException("anything else"), NONE))
                .isNull();
    }
}
