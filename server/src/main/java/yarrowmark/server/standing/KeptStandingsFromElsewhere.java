package yarrowmark.server.standing;

import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Component;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.records.FromElsewhere;

/** Standings that were kept elsewhere can be shown. */
@Component
class KeptStandingsFromElsewhere implements FromElsewhere {
    private final JdbcTemplate jdbc;
    private final FrozenStandings kept;

    KeptStandingsFromElsewhere(JdbcTemplate jdbc, FrozenStandings kept) {
        this.jdbc = jdbc;
        this.kept = kept;
    }

    @Override
    public void lookOver() {
        for (String key :
                jdbc.queryForList("select frozen_key from frozen_standing order by frozen_key", String.class)) {
            try {
                kept.read(key);
            } catch (RuntimeException e) {
                throw Problem.invalid("kept-unreadable", "the kept standing " + key + " cannot be read");
            }
        }
    }
}
