package yarrowmark.server.lab;

import java.math.BigDecimal;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Types;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.DoubleStream;
import org.jspecify.annotations.Nullable;
import yarrowmark.server.ledger.record.PackedSamples;

/**
 * A column of a table of the records, and how its values are written in a package: numbers so that they come back to the
 * last bit, moments in UTC, yes and no as words, timing samples as a list of numbers.
 *
 * @param name     as in the records
 * @param type     of a Table Schema field
 * @param required whether every row has a value
 */
record LabColumn(String name, Type type, boolean required) {
    /** Stands where there is no value; an empty text is a value. */
    static final String MISSING = "\\N";

    /** A text that looks like the sign for no value has one more backslash. */
    private static final Pattern LIKE_MISSING = Pattern.compile("\\\\+N");

    private static final DateTimeFormatter MOMENT =
            DateTimeFormatter.ofPattern("uuuu-MM-dd'T'HH:mm:ss.SSS'Z'", Locale.ROOT);

    enum Type {
        INTEGER,
        NUMBER,
        /** A number with a fixed count of digits, such as a price. */
        DECIMAL,
        BOOLEAN,
        STRING,
        DATETIME,
        DATE,
        /** A list of numbers; the records keep it packed. */
        ARRAY,
        /** The path of a file in the package; the records keep what is in it. */
        FILE;

        /** @param sql as the database calls it */
        static Type of(String sql) {
            return switch (sql) {
                case "bigint", "int", "smallint", "tinyint" -> INTEGER;
                case "double" -> NUMBER;
                case "decimal" -> DECIMAL;
                case "bit" -> BOOLEAN;
                case "varchar", "char", "text", "mediumtext", "longtext" -> STRING;
                case "datetime", "timestamp" -> DATETIME;
                case "date" -> DATE;
                default -> throw new IllegalStateException("a package has no type for the records' " + sql);
            };
        }

        /** What a Table Schema calls it. */
        String word() {
            return switch (this) {
                case FILE -> "string";
                case DECIMAL -> "number";
                default -> name().toLowerCase(Locale.ROOT);
            };
        }
    }

    /** @return as it stands in the CSV; of a file, nothing: its path is made elsewhere */
    String written(ResultSet row, int at) throws SQLException {
        if (type == Type.ARRAY) {
            byte[] packed = row.getBytes(at);
            return DoubleStream.of(PackedSamples.unpack(packed))
                    .mapToObj(Double::toString)
                    .collect(Collectors.joining(",", "[", "]"));
        }
        Object value =
                switch (type) {
                    case INTEGER -> row.getLong(at);
                    case NUMBER -> row.getDouble(at);
                    case DECIMAL -> row.getBigDecimal(at);
                    case BOOLEAN -> row.getBoolean(at);
                    case DATETIME -> row.getObject(at, LocalDateTime.class);
                    case DATE -> row.getObject(at, LocalDate.class);
                    default -> row.getString(at);
                };
        if (row.wasNull() || value == null) {
            return MISSING;
        }
        if (value instanceof LocalDateTime moment) {
            return MOMENT.format(moment);
        }
        String text = value instanceof BigDecimal number ? number.toPlainString() : value.toString();
        return type == Type.STRING && LIKE_MISSING.matcher(text).matches() ? "\\" + text : text;
    }

    /** @throws LabFault where the text is none of this type */
    void read(@Nullable String text, PreparedStatement into, int at) throws SQLException {
        if (text == null || text.equals(MISSING)) {
            if (required) {
                throw new LabFault("a value is missing");
            }
            into.setNull(at, Types.NULL);
            return;
        }
        try {
            switch (type) {
                case INTEGER -> into.setLong(at, Long.parseLong(text));
                case NUMBER -> into.setDouble(at, finite(text));
                case DECIMAL -> into.setBigDecimal(at, new BigDecimal(text));
                case BOOLEAN -> into.setBoolean(at, yes(text));
                case DATETIME -> into.setObject(at, LocalDateTime.parse(text, MOMENT));
                case DATE -> into.setObject(at, LocalDate.parse(text));
                case ARRAY -> into.setBytes(at, PackedSamples.pack(numbers(text)));
                default -> into.setString(at, LIKE_MISSING.matcher(text).matches() ? text.substring(1) : text);
            }
        } catch (NumberFormatException | DateTimeException e) {
            throw new LabFault("“" + shortened(text) + "” is no " + type.word());
        }
    }

    private static double finite(String text) {
        double value = Double.parseDouble(text);
        if (Double.isNaN(value) || Double.isInfinite(value)) {
            throw new NumberFormatException(text);
        }
        return value;
    }

    private static boolean yes(String text) {
        return switch (text) {
            case "true" -> true;
            case "false" -> false;
            default -> throw new NumberFormatException(text);
        };
    }

    static double[] numbers(String text) {
        if (!text.startsWith("[") || !text.endsWith("]")) {
            throw new NumberFormatException(text);
        }
        String inner = text.substring(1, text.length() - 1).strip();
        return inner.isEmpty()
                ? new double[0]
                : Pattern.compile(",")
                        .splitAsStream(inner)
                        .mapToDouble(LabColumn::finite)
                        .toArray();
    }

    static String shortened(String text) {
        return text.length() <= 60 ? text : text.substring(0, 57) + "…";
    }
}
