package yarrowmark.core.formula;

import com.ezylang.evalex.EvaluationException;
import com.ezylang.evalex.Expression;
import com.ezylang.evalex.config.ExpressionConfiguration;
import com.ezylang.evalex.config.MapBasedFunctionDictionary;
import com.ezylang.evalex.config.MapBasedOperatorDictionary;
import com.ezylang.evalex.operators.arithmetic.InfixDivisionOperator;
import com.ezylang.evalex.operators.arithmetic.InfixMinusOperator;
import com.ezylang.evalex.operators.arithmetic.InfixMultiplicationOperator;
import com.ezylang.evalex.operators.arithmetic.InfixPlusOperator;
import com.ezylang.evalex.operators.arithmetic.PrefixMinusOperator;
import com.ezylang.evalex.parser.ParseException;
import java.math.MathContext;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/**
 * A formula over named inputs: "started - firmware", "score / full_power", "geomean(read, write)". It knows + − × ÷ ^,
 * brackets, and the functions of {@link Functions}; it reaches nothing but its inputs.
 *
 * <p>Accuracy: 16 decimal digits; ^ and the functions that of a double. Edge cases: a missing input, a division by zero
 * and a result that is not finite give no value and say why.
 */
public final class Formula {
    /** What a formula gives. */
    public sealed interface Result {}

    public record Value(double value) implements Result {}

    public record NoValue(String reason) implements Result {}

    private static final int LONGEST = 500;
    /** What belongs to no number, name or sign. */
    private static final Pattern STRANGE = Pattern.compile("[^A-Za-z0-9_+*/^()., -]");

    private static final ExpressionConfiguration ARITHMETIC = ExpressionConfiguration.builder()
            .operatorDictionary(MapBasedOperatorDictionary.ofOperators(
                    Map.entry("+", new InfixPlusOperator()),
                    Map.entry("-", new InfixMinusOperator()),
                    Map.entry("-", new PrefixMinusOperator()),
                    Map.entry("*", new InfixMultiplicationOperator()),
                    Map.entry("/", new InfixDivisionOperator()),
                    Map.entry("^", new Functions.Power())))
            .functionDictionary(MapBasedFunctionDictionary.ofFunctions(Functions.all()))
            .defaultConstants(Map.of())
            .mathContext(MathContext.DECIMAL64)
            .arraysAllowed(false)
            .structuresAllowed(false)
            .implicitMultiplicationAllowed(false)
            .build();

    private final String text;
    private final Expression parsed;
    private final Set<String> inputs;

    private Formula(String text, Expression parsed, Set<String> inputs) {
        this.text = text;
        this.parsed = parsed;
        this.inputs = Set.copyOf(inputs);
    }

    /** @throws IllegalArgumentException with words for the person who wrote it */
    public static Formula parse(String typed) {
        String text = typed.strip()
                .replace('−', '-')
                .replace('×', '*')
                .replace('÷', '/')
                .replace('·', '*');
        if (text.isEmpty() || text.length() > LONGEST) {
            throw new IllegalArgumentException("A formula has 1 to " + LONGEST + " characters.");
        }
        int strange = strange(text);
        if (strange >= 0) {
            throw new IllegalArgumentException("The formula cannot be read at character " + (strange + 1) + ": \""
                    + text.charAt(strange) + "\" is no part of one.");
        }
        try {
            Expression parsed = new Expression(text, ARITHMETIC);
            parsed.validate();
            Set<String> inputs = parsed.getUsedVariables().stream()
                    .map(v -> v.toLowerCase(Locale.ROOT))
                    .collect(Collectors.toCollection(LinkedHashSet::new));
            if (inputs.isEmpty()) {
                throw new IllegalArgumentException(
                        "The formula uses no input. Name at least one, such as \"started - firmware\".");
            }
            return new Formula(text, parsed, inputs);
        } catch (ParseException e) {
            throw new IllegalArgumentException("The formula cannot be read at character " + e.getStartPosition() + ": "
                    + Objects.requireNonNullElse(e.getMessage(), "it is no formula")
                            .toLowerCase(Locale.ROOT) + ".");
        }
    }

    /** Where something stands that belongs to no number, name or sign; −1 where nothing does. */
    private static int strange(String text) {
        Matcher strange = STRANGE.matcher(text);
        return strange.find() ? strange.start() : -1;
    }

    public String text() {
        return text;
    }

    /** The names it needs, in lower case. */
    public Set<String> inputs() {
        return inputs;
    }

    /**
     * The step in which a result is known: each input is moved by its own step, and the moves are added as variances.
     *
     * @param steps by name, 0 or absent where a step does not matter
     * @return 0 where nothing is known of it
     */
    public double step(Map<String, Double> values, Map<String, Double> steps) {
        if (!(evaluate(values) instanceof Value at)) {
            return 0;
        }
        double squares = 0;
        for (String input : inputs) {
            double step = steps.getOrDefault(input, 0.0);
            Map<String, Double> moved = new HashMap<>(values);
            moved.merge(input, step, Double::sum);
            if (step > 0 && evaluate(moved) instanceof Value there) {
                squares += (there.value() - at.value()) * (there.value() - at.value());
            }
        }
        return Math.sqrt(squares);
    }

    /** @param values by name; what is missing is a reason, not an error */
    public Result evaluate(Map<String, Double> values) {
        Set<String> missing = new LinkedHashSet<>();
        for (String input : inputs) {
            if (values.get(input) == null) {
                missing.add(input);
            }
        }
        if (!missing.isEmpty()) {
            return new NoValue("There is no value of " + String.join(", ", missing) + " in this session.");
        }
        try {
            Expression bound = parsed.copy();
            for (String input : inputs) {
                bound.with(input, values.get(input));
            }
            double value = bound.evaluate().getNumberValue().doubleValue();
            return Double.isFinite(value) ? new Value(value) : new NoValue("The formula's result is not finite.");
        } catch (EvaluationException | ParseException | ArithmeticException | NumberFormatException e) {
            boolean zero = e.getMessage() != null
                    && e.getMessage().toLowerCase(Locale.ROOT).contains("zero");
            return new NoValue(
                    zero ? "The formula divides by zero here." : "The formula has no value here: " + e.getMessage());
        }
    }
}
