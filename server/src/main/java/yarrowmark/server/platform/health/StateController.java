package yarrowmark.server.platform.health;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;

/** Whether the records can be reached and have room, for the line that every view shows when they cannot. */
@RestController
class StateController {
    /**
     * @param freeBytes on the disk with the records, where that is little; null where there is plenty
     * @param notes     what else is wrong, in sentences
     */
    record State(@Nullable Long freeBytes, List<String> notes) {}

    private final JdbcTemplate jdbc;
    private final DiskSpace disk;
    private final List<HealthWarnings> noticing;

    StateController(JdbcTemplate jdbc, DiskSpace disk, List<HealthWarnings> noticing) {
        this.noticing = noticing;
        this.jdbc = jdbc;
        this.disk = disk;
    }

    /** Fails as any other question does while the records are out of reach. */
    @GetMapping("/api/state")
    State state() {
        jdbc.queryForObject("select 1", Integer.class);
        DiskSpace.Room room = disk.room();
        return new State(
                room.isLow() ? room.free() : null,
                noticing.stream().flatMap(n -> n.noticed().stream()).toList());
    }
}
