package yarrowmark.core.formula;

import com.ezylang.evalex.EvaluationException;
import com.ezylang.evalex.Expression;
import com.ezylang.evalex.data.EvaluationValue;
import com.ezylang.evalex.functions.AbstractFunction;
import com.ezylang.evalex.functions.FunctionIfc;
import com.ezylang.evalex.functions.FunctionParameter;
import com.ezylang.evalex.operators.AbstractOperator;
import com.ezylang.evalex.operators.InfixOperator;
import com.ezylang.evalex.operators.OperatorIfc;
import com.ezylang.evalex.parser.Token;
import java.util.Arrays;
import java.util.Map;
import java.util.function.DoubleUnaryOperator;
import java.util.function.ToDoubleFunction;

/** What a formula may call. All take and give plain numbers and end at once, whatever is put into them. */
final class Functions {
    private Functions() {}

    /** By the name a formula uses. */
    @SuppressWarnings({"unchecked", "rawtypes"})
    static Map.Entry<String, FunctionIfc>[] all() {
        return new Map.Entry[] {
            Map.entry("abs", new OfOne(Math::abs)),
            Map.entry("sqrt", new OfOne(Math::sqrt)),
            Map.entry("ln", new OfOne(Math::log)),
            Map.entry("log10", new OfOne(Math::log10)),
            Map.entry("exp", new OfOne(Math::exp)),
            Map.entry("min", new OfMany(v -> Arrays.stream(v).min().orElseThrow())),
            Map.entry("max", new OfMany(v -> Arrays.stream(v).max().orElseThrow())),
            Map.entry("sum", new OfMany(v -> Arrays.stream(v).sum())),
            Map.entry("mean", new OfMany(v -> Arrays.stream(v).average().orElseThrow())),
            Map.entry(
                    "geomean",
                    new OfMany(v ->
                            Math.exp(Arrays.stream(v).map(Math::log).average().orElseThrow()))),
            Map.entry(
                    "harmean",
                    new OfMany(v -> v.length / Arrays.stream(v).map(x -> 1 / x).sum())),
        };
    }

    private static EvaluationValue value(Expression expression, Token at, double result) throws EvaluationException {
        if (!Double.isFinite(result)) {
            throw new EvaluationException(at, at.getValue() + " gives no finite number here");
        }
        return expression.convertValue(result);
    }

    @FunctionParameter(name = "value")
    private static final class OfOne extends AbstractFunction {
        private final DoubleUnaryOperator function;

        OfOne(DoubleUnaryOperator function) {
            this.function = function;
        }

        @Override
        public EvaluationValue evaluate(Expression expression, Token at, EvaluationValue... values)
                throws EvaluationException {
            return value(
                    expression,
                    at,
                    function.applyAsDouble(values[0].getNumberValue().doubleValue()));
        }
    }

    @FunctionParameter(name = "values", isVarArg = true)
    private static final class OfMany extends AbstractFunction {
        private final ToDoubleFunction<double[]> function;

        OfMany(ToDoubleFunction<double[]> function) {
            this.function = function;
        }

        @Override
        public EvaluationValue evaluate(Expression expression, Token at, EvaluationValue... values)
                throws EvaluationException {
            return value(
                    expression,
                    at,
                    function.applyAsDouble(Arrays.stream(values)
                            .mapToDouble(v -> v.getNumberValue().doubleValue())
                            .toArray()));
        }
    }

    /** On doubles: exact powers of large numbers would never end. */
    @InfixOperator(precedence = OperatorIfc.OPERATOR_PRECEDENCE_POWER, leftAssociative = false)
    static final class Power extends AbstractOperator {
        @Override
        public EvaluationValue evaluate(Expression expression, Token at, EvaluationValue... operands)
                throws EvaluationException {
            return value(
                    expression,
                    at,
                    Math.pow(
                            operands[0].getNumberValue().doubleValue(),
                            operands[1].getNumberValue().doubleValue()));
        }
    }
}
