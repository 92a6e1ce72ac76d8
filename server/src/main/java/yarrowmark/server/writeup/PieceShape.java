package yarrowmark.server.writeup;

import jakarta.validation.ConstraintViolation;
import jakarta.validation.Validation;
import jakarta.validation.Validator;
import java.util.stream.Collectors;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.MapperFeature;
import tools.jackson.databind.cfg.CoercionAction;
import tools.jackson.databind.cfg.CoercionInputShape;
import tools.jackson.databind.exc.InvalidTypeIdException;
import tools.jackson.databind.exc.UnrecognizedPropertyException;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.type.LogicalType;
import yarrowmark.server.platform.Problem;

/** Judges what is to be kept as a piece by the {@link PieceBody} of its kind: what a page cannot show is refused. */
final class PieceShape {
    /** A long text with its numbers. */
    static final int LONGEST = 200_000;

    /** What is said on the stage, for whoever says it. */
    static final String NOTES = "notes";

    private static final JsonMapper STRICT = JsonMapper.builder()
            .enable(
                    DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES,
                    DeserializationFeature.FAIL_ON_NULL_FOR_PRIMITIVES)
            .disable(DeserializationFeature.ACCEPT_FLOAT_AS_INT)
            .disable(MapperFeature.ALLOW_COERCION_OF_SCALARS)
            .withCoercionConfig(
                    LogicalType.Textual, text -> text.setCoercion(CoercionInputShape.Integer, CoercionAction.Fail)
                            .setCoercion(CoercionInputShape.Float, CoercionAction.Fail)
                            .setCoercion(CoercionInputShape.Boolean, CoercionAction.Fail))
            .build();

    private static final Validator RULES =
            Validation.buildDefaultValidatorFactory().getValidator();

    private PieceShape() {}

    /** @throws Problem where it is none of this kind */
    static void check(PieceKind kind, JsonNode body) {
        if (!body.isObject()) {
            throw wrong("it is no object");
        }
        if (body.toString().length() > LONGEST) {
            throw wrong("it is longer than " + LONGEST + " characters. Make two of it");
        }
        PieceBody read;
        try {
            read = STRICT.treeToValue(body, kind.body);
        } catch (UnrecognizedPropertyException e) {
            throw wrong("there is nothing called “" + shortened(e.getPropertyName()) + "” in it");
        } catch (InvalidTypeIdException e) {
            throw wrong(place(e) + " asks for nothing that is known");
        } catch (JacksonException e) {
            throw wrong(place(e) + " is not what belongs there");
        }
        RULES.validate(read).stream()
                .map(PieceShape::words)
                .sorted()
                .findFirst()
                .ifPresent(why -> {
                    throw wrong(why);
                });
    }

    private static String words(ConstraintViolation<?> broken) {
        return shortened(broken.getPropertyPath().toString()) + " " + broken.getMessage();
    }

    private static String place(JacksonException e) {
        String path = e.getPath().stream()
                .map(at -> at.getPropertyName() == null ? String.valueOf(at.getIndex() + 1) : at.getPropertyName())
                .collect(Collectors.joining(" "));
        return path.isEmpty() ? "something in it" : shortened(path);
    }

    private static String shortened(String text) {
        return text.length() > 40 ? text.substring(0, 40) : text;
    }

    private static Problem wrong(String why) {
        return Problem.invalid("piece-shape", "This piece cannot be kept: " + why + ".");
    }
}
