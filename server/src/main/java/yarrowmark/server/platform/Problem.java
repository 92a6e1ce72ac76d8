package yarrowmark.server.platform;

import org.springframework.http.HttpStatus;

/** A request that cannot be carried out. The detail says what, where and why, in words for the person who asked. */
public class Problem extends RuntimeException {
    private final HttpStatus status;
    private final String code;

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

    public static Problem conflict(String code, String detail) {
        return new Problem(HttpStatus.CONFLICT, code, detail);
    }

    public HttpStatus status() {
        return status;
    }

    /** Stable, for programs. */
    public String code() {
        return code;
    }
}
