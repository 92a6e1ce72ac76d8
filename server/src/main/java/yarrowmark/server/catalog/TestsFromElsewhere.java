package yarrowmark.server.catalog;

import jakarta.validation.Validator;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Component;
import tools.jackson.core.JacksonException;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.standing.RatingLimits;
import yarrowmark.core.stats.UsualSpread;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.records.FromElsewhere;

/** Tests that came from elsewhere, with their commands, are such as could be made here. */
@Component
class TestsFromElsewhere implements FromElsewhere {
    private final JdbcTemplate jdbc;
    private final Validator validator;

    TestsFromElsewhere(JdbcTemplate jdbc, Validator validator) {
        this.jdbc = jdbc;
        this.validator = validator;
    }

    @Override
    public void lookOver() {
        jdbc.query("select name, repeatability from test where repeatability is not null", row -> {
            try {
                new UsualSpread(row.getDouble(2));
            } catch (IllegalArgumentException e) {
                throw Problem.invalid("not-a-repeatability", "the test “" + row.getString(1) + "”: " + e.getMessage());
            }
        });
        jdbc.query(
                "select name, direction, good_limit, poor_limit from metric where good_limit is not null or poor_limit is not null",
                row -> {
                    try {
                        if (row.getObject(3) == null || row.getObject(4) == null) {
                            throw new IllegalArgumentException("one of the two is missing");
                        }
                        new RatingLimits(Direction.valueOf(row.getString(2)), row.getDouble(3), row.getDouble(4));
                    } catch (IllegalArgumentException e) {
                        throw Problem.invalid(
                                "not-limits", "the limits of “" + row.getString(1) + "”: " + e.getMessage());
                    }
                });
        TimedCommandText reader = new TimedCommandText();
        jdbc.query("select name, command from test where command is not null", row -> {
            String whose = "the command of the test “" + row.getString(1) + "”";
            TimedCommand command;
            try {
                command = reader.convertToEntityAttribute(row.getString(2));
            } catch (JacksonException | IllegalArgumentException | NullPointerException e) {
                throw Problem.invalid("command-unreadable", whose + " cannot be read");
            }
            validator.validate(command).stream().findFirst().ifPresent(wrong -> {
                throw Problem.invalid(
                        "command-refused", whose + ": " + wrong.getPropertyPath() + " " + wrong.getMessage());
            });
        });
    }
}
