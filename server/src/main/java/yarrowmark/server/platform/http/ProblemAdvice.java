package yarrowmark.server.platform.http;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.validation.ConstraintViolationException;
import java.io.IOException;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;
import org.apache.tomcat.util.http.InvalidParameterException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.HttpStatusCode;
import org.springframework.http.MediaType;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.http.converter.HttpMessageNotReadableException;
import org.springframework.http.converter.HttpMessageNotWritableException;
import org.springframework.web.ErrorResponse;
import org.springframework.web.bind.MethodArgumentNotValidException;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.context.request.async.AsyncRequestNotUsableException;
import org.springframework.web.method.annotation.HandlerMethodValidationException;
import org.springframework.web.method.annotation.MethodArgumentTypeMismatchException;
import org.springframework.web.servlet.resource.NoResourceFoundException;
import tools.jackson.core.exc.StreamReadException;
import tools.jackson.databind.DatabindException;
import yarrowmark.core.measure.InvalidReadingException;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.TooManyTries;
import yarrowmark.server.platform.health.DiskSpace;
import yarrowmark.server.platform.records.RecordsTrouble;
import yarrowmark.server.platform.records.TransactionRetry;

/** Every error leaves the server as a problem detail (RFC 9457) with a stable code and a sentence for a person. */
@RestControllerAdvice
class ProblemAdvice {
    private static final Logger LOG = LoggerFactory.getLogger(ProblemAdvice.class);
    private final Pages pages;
    private final DiskSpace disk;

    ProblemAdvice(Pages pages, DiskSpace disk) {
        this.disk = disk;
        this.pages = pages;
    }

    @ExceptionHandler
    ResponseEntity<ProblemDetail> problem(Problem p) {
        HttpHeaders headers = new HttpHeaders();
        if (p instanceof TooManyTries tries) {
            headers.set(
                    HttpHeaders.RETRY_AFTER,
                    Long.toString(Math.max(1, tries.waitFor().toSeconds())));
        } else if (p.status() == HttpStatus.SERVICE_UNAVAILABLE) {
            headers.set(HttpHeaders.RETRY_AFTER, "3");
        }
        ProblemDetail detail = detail(p.status(), p.code(), Problem.words(p));
        p.more().forEach(detail::setProperty);
        return new ResponseEntity<>(detail, headers, p.status());
    }

    @ExceptionHandler
    ProblemDetail reading(InvalidReadingException e) {
        return detail(HttpStatus.UNPROCESSABLE_CONTENT, "invalid-reading", Problem.words(e));
    }

    @ExceptionHandler
    ProblemDetail invalidBody(MethodArgumentNotValidException e) {
        List<Problem.Refused> refused = e.getBindingResult().getFieldErrors().stream()
                .map(f -> new Problem.Refused(
                        f.getField(),
                        f.isBindingFailure()
                                ? "cannot be “" + shortened(String.valueOf(f.getRejectedValue())) + "”"
                                : Objects.requireNonNullElse(f.getDefaultMessage(), "is not valid")))
                .toList();
        return refused(refused);
    }

    @ExceptionHandler
    ProblemDetail invalidParameter(HandlerMethodValidationException e) {
        List<Problem.Refused> refused = e.getParameterValidationResults().stream()
                .flatMap(r -> r.getResolvableErrors().stream()
                        .map(m -> new Problem.Refused(
                                Objects.requireNonNullElse(
                                        r.getMethodParameter().getParameterName(), "a value"),
                                Objects.requireNonNullElse(m.getDefaultMessage(), "is not valid"))))
                .toList();
        return refused(refused);
    }

    @ExceptionHandler
    ProblemDetail invalid(ConstraintViolationException e) {
        return refused(e.getConstraintViolations().stream()
                .map(v -> new Problem.Refused(v.getPropertyPath().toString(), v.getMessage()))
                .toList());
    }

    @ExceptionHandler
    ProblemDetail wrongType(MethodArgumentTypeMismatchException e) {
        return detail(
                HttpStatus.BAD_REQUEST,
                "unreadable",
                "\"" + shortened(String.valueOf(e.getValue())) + "\" is not a value that " + e.getName()
                        + " can have.");
    }

    @ExceptionHandler
    ResponseEntity<ProblemDetail> unreadable(HttpMessageNotReadableException e) {
        Problem refusal = BodyLimitFilter.refusal(e);
        return problem(
                refusal != null
                        ? refusal
                        : new Problem(
                                HttpStatus.BAD_REQUEST,
                                "unreadable",
                                "The request's body cannot be read as JSON of the expected shape" + where(e) + "."));
    }

    /** Where it cannot be read, in the sender's words and never in those of what reads it. */
    private static String where(Throwable e) {
        for (Throwable cause = e; cause != null; cause = cause.getCause()) {
            if (cause instanceof DatabindException wrong && !wrong.getPath().isEmpty()) {
                return ": "
                        + wrong.getPath().stream()
                                .map(r -> r.getPropertyName() != null ? r.getPropertyName() : "[" + r.getIndex() + "]")
                                .collect(Collectors.joining("."))
                        + " is not what is expected there";
            }
            if (cause instanceof StreamReadException cut && cut.getLocation() != null) {
                return ": line " + cut.getLocation().getLineNr() + ", character "
                        + cut.getLocation().getColumnNr();
            }
        }
        return "";
    }

    /** Somebody mistyped an address: a person gets our page, which says so, and a program its answer. */
    @ExceptionHandler
    ResponseEntity<?> nowhere(NoResourceFoundException e, HttpServletRequest request, HttpServletResponse response) {
        String accepts = Objects.requireNonNullElse(request.getHeader(HttpHeaders.ACCEPT), "");
        if (accepts.contains(MediaType.TEXT_HTML_VALUE)
                && !request.getRequestURI().startsWith("/api/")) {
            return ResponseEntity.status(HttpStatus.NOT_FOUND)
                    .contentType(MediaType.TEXT_HTML)
                    .body(pages.view(response));
        }
        return ResponseEntity.status(HttpStatus.NOT_FOUND)
                .body(detail(HttpStatus.NOT_FOUND, "http-404", "There is nothing at this address."));
    }

    /** The address holds bytes that are no text. */
    @ExceptionHandler
    ProblemDetail unreadable(InvalidParameterException e) {
        LOG.debug("an address that is no text", e);
        return detail(HttpStatus.BAD_REQUEST, "unreadable", "The address has characters in it that are no text.");
    }

    /** The reader went away in mid-answer; there is nobody left to tell. */
    @ExceptionHandler
    void gone(AsyncRequestNotUsableException e) {
        LOG.debug("a reader went away", e);
    }

    /** The same in the middle of a plain answer. */
    @ExceptionHandler
    ResponseEntity<ProblemDetail> unwritten(HttpMessageNotWritableException e) throws Exception {
        if (e.getMostSpecificCause() instanceof IOException) {
            LOG.debug("a reader went away", e);
            return ResponseEntity.internalServerError().build();
        }
        return other(e);
    }

    @ExceptionHandler
    ResponseEntity<ProblemDetail> other(Exception e) throws Exception {
        Problem trouble = BodyLimitFilter.refusal(e);
        if (trouble == null) {
            trouble = RecordsTrouble.of(e, disk.room());
        }
        if (trouble != null) {
            LOG.debug("in trouble", e);
            return problem(trouble);
        }
        if (e instanceof org.springframework.security.access.AccessDeniedException
                || e instanceof org.springframework.security.core.AuthenticationException) {
            throw e;
        }
        if (e instanceof ErrorResponse known) {
            HttpStatusCode status = known.getStatusCode();
            return new ResponseEntity<>(
                    detail(
                            status,
                            "http-" + status.value(),
                            String.valueOf(known.getBody().getDetail())),
                    status);
        }
        if (TransactionRetry.lostAgainstAnother(e)) {
            LOG.warn("Lost against another change again and again", e);
            return problem(Problem.conflict(
                    "changed-meanwhile",
                    "Somebody else changed or made the same at this moment. Nothing was stored; look again."));
        }
        LOG.error("unexpected", e);
        return new ResponseEntity<>(
                detail(
                        HttpStatus.INTERNAL_SERVER_ERROR,
                        "unexpected",
                        "Something went wrong in the server. Nothing was stored by this request; the server's log says more."),
                HttpStatus.INTERNAL_SERVER_ERROR);
    }

    private static ProblemDetail refused(List<Problem.Refused> refused) {
        String sentence = String.join(
                "; ", refused.stream().map(r -> r.field() + " " + r.reason()).toList());
        ProblemDetail detail = detail(HttpStatus.BAD_REQUEST, "invalid", sentence + ".");
        detail.setProperties(Map.of("code", "invalid", "refused", refused));
        return detail;
    }

    static ProblemDetail detail(HttpStatusCode status, String code, String sentence) {
        ProblemDetail detail = ProblemDetail.forStatusAndDetail(status, sentence);
        detail.setProperty("code", code);
        return detail;
    }

    private static String shortened(String text) {
        String line = text == null ? "" : text.lines().findFirst().orElse("");
        return line.length() <= 160 ? line : line.substring(0, 160) + "…";
    }
}
