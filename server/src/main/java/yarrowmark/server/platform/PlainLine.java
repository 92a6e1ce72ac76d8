package yarrowmark.server.platform;

import jakarta.validation.Constraint;
import jakarta.validation.ConstraintValidator;
import jakarta.validation.ConstraintValidatorContext;
import jakarta.validation.Payload;
import java.lang.annotation.ElementType;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;
import org.jspecify.annotations.Nullable;

/**
 * A name, or words on one line: something can be seen of it, and nothing in it is a command to whatever shows it. Any script
 * and any sign is fine. Nothing at all is for {@code NotNull} to judge.
 */
@Target({ElementType.FIELD, ElementType.PARAMETER, ElementType.TYPE_USE, ElementType.RECORD_COMPONENT})
@Retention(RetentionPolicy.RUNTIME)
@Constraint(validatedBy = PlainLine.Check.class)
public @interface PlainLine {
    String message() default "must have something to see, on one line, without control characters";

    Class<?>[] groups() default {};

    Class<? extends Payload>[] payload() default {};

    class Check implements ConstraintValidator<PlainLine, CharSequence> {
        @Override
        public boolean isValid(@Nullable CharSequence text, ConstraintValidatorContext context) {
            return text == null || isPlain(text.toString());
        }

        /** Whether there is something to see, on one line, and nothing that commands. */
        public static boolean isPlain(String text) {
            return text.codePoints().anyMatch(Check::isSeen)
                    && text.codePoints().allMatch(Check::isHarmless);
        }

        private static boolean isSeen(int c) {
            int type = Character.getType(c);
            return !Character.isWhitespace(c)
                    && !Character.isSpaceChar(c)
                    && type != Character.FORMAT
                    && type != Character.CONTROL
                    && type != Character.UNASSIGNED;
        }

        private static boolean isHarmless(int c) {
            int type = Character.getType(c);
            return type != Character.CONTROL
                    && type != Character.SURROGATE
                    && type != Character.LINE_SEPARATOR
                    && type != Character.PARAGRAPH_SEPARATOR;
        }
    }
}
