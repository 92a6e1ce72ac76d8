package yarrowmark.server.platform;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.springframework.http.HttpStatus;

/** A request that cannot be carried out. The detail says what, where and why, in words for the person who asked. */
public class Problem extends RuntimeException {
    /** One value that was refused. */
    public record Refused(String field, String reason) {}

    private final HttpStatus status;
    private final String code;
    private final Map<String, Object> more = new LinkedHashMap<>();

    public Problem(HttpStatus status, String code, String detail) {
        super(detail, null, false, false);
        this.status = status;
        this.code = code;
    }

    public static Problem notFound(String what, Object which) {
        return new Problem(HttpStatus.NOT_FOUND, "not-found", "There is no " + what + " " + which + ".");
    }

    public static Problem invalid(String code, String detail) {
        return new Problem(HttpStatus.UNPROCESSABLE_CONTENT, code, detail);
    }

    /** Several values were refused; the detail lists them all. */
    public static Problem refused(String code, List<Refused> refused) {
        return invalid(
                        code,
                        String.join(" ", refused.stream().map(Refused::reason).toList()))
                .with("refused", refused);
    }

    public static Problem conflict(String code, String detail) {
        return new Problem(HttpStatus.CONFLICT, code, detail);
    }

    /** Adds what a program needs to help: the state as it is now, the record that stands in the way. */
    public Problem with(String name, Object value) {
        more.put(name, value);
        return this;
    }

    /** What an exception says, or what it is where it says nothing. */
    public static String words(Throwable e) {
        return Objects.requireNonNullElse(e.getMessage(), e.getClass().getSimpleName());
    }

    public HttpStatus status() {
        return status;
    }

    /** Stable, for programs. */
    public String code() {
        return code;
    }

    public Map<String, Object> more() {
        return Map.copyOf(more);
    }
}
