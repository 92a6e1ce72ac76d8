package yarrowmark.server.writeup;

import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Component;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.json.JsonMapper;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.records.FromElsewhere;

/** Write-ups that came from elsewhere can be opened, and their pages hold nothing that ours would not. */
@Component
class WriteUpsFromElsewhere implements FromElsewhere {
    private final JdbcTemplate jdbc;
    private final JsonMapper json;
    private final WriteUpKinds kinds;
    private final LabLook look;
    private final Editions editions;

    WriteUpsFromElsewhere(JdbcTemplate jdbc, JsonMapper json, WriteUpKinds kinds, LabLook look, Editions editions) {
        this.jdbc = jdbc;
        this.json = json;
        this.kinds = kinds;
        this.look = look;
        this.editions = editions;
    }

    @Override
    public void lookOver() {
        jdbc.query("select id, kind, body from write_up_piece", row -> {
            String where = "piece " + row.getLong(1) + " of a write-up: ";
            try {
                PieceShape.check(PieceKind.valueOf(row.getString(2)), json.readTree(row.getString(3)));
            } catch (JacksonException | IllegalArgumentException e) {
                throw Problem.invalid("piece-unreadable", where + "it cannot be read");
            } catch (Problem e) {
                throw Problem.invalid("piece-shape", where + e.getMessage());
            }
        });
        try {
            kinds.all();
        } catch (JacksonException e) {
            throw Problem.invalid("kind-unreadable", "a kind of write-up cannot be read");
        }
        look.cleanUp();
        editions.makeAnew();
    }
}
