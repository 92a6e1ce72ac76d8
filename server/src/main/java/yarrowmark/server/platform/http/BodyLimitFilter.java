package yarrowmark.server.platform.http;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ReadListener;
import jakarta.servlet.ServletException;
import jakarta.servlet.ServletInputStream;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletRequestWrapper;
import jakarta.servlet.http.HttpServletResponse;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import org.jspecify.annotations.Nullable;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpMethod;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;
import yarrowmark.server.platform.Problem;

/** Refuses bodies that are larger than anything a request needs, whether or not they say their length. */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE + 10)
class BodyLimitFilter extends OncePerRequestFilter {
    static final String CODE = "body-too-large";
    static final int MOST_BYTES = 2 * 1024 * 1024;
    /** A photo as a phone takes it, or a log. */
    static final int MOST_PHOTO_BYTES = 16 * 1024 * 1024 - 1;
    /** Some hundred thousand readings with their facts. */
    static final int MOST_IMPORT_BYTES = 128 * 1024 * 1024;
    /** A spreadsheet; a million cells have room in it. */
    static final int MOST_TABLE_BYTES = 50 * 1024 * 1024;
    /** What a device sends to measure the way here: counted and thrown away. */
    static final int MOST_STREAM_BYTES = 64 * 1024 * 1024;

    static final String MESSAGE =
            "The request is larger than 2 MB, 16 MB for a photo or another file, or 128 MB for an import, and was not read. Nothing was stored.";

    private final RequestBodyLimits bodies;

    BodyLimitFilter(RequestBodyLimits bodies) {
        this.bodies = bodies;
    }

    /** @return why a body was not read to its end; null where that is not what went wrong */
    static @Nullable Problem refusal(Throwable e) {
        for (Throwable t = e; t != null; t = t.getCause()) {
            if (t instanceof RequestBodyLimits.Refused refused) {
                return refused.problem();
            }
        }
        return null;
    }

    private static int most(String path) {
        if (path.endsWith("/photo") || path.endsWith("/photos") || path.endsWith("/evidence")) {
            return MOST_PHOTO_BYTES;
        }
        if (path.equals("/api/tables")) {
            return MOST_TABLE_BYTES;
        }
        return path.endsWith("/import")
                ? MOST_IMPORT_BYTES
                : path.equals("/api/device/network/up") ? MOST_STREAM_BYTES : MOST_BYTES;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        int most = most(request.getRequestURI());
        if (request.getContentLengthLong() > most) {
            response.setStatus(413);
            response.setContentType(MediaType.APPLICATION_PROBLEM_JSON_VALUE);
            response.getWriter().write("{\"status\":413,\"code\":\"" + CODE + "\",\"detail\":\"" + MESSAGE + "\"}");
            return;
        }
        if (request.getContentLengthLong() == 0 || HttpMethod.GET.matches(request.getMethod())) {
            chain.doFilter(request, response);
            return;
        }
        RequestBodyLimits.Turn turn = bodies.turn(request, request.getRequestURI());
        try {
            chain.doFilter(new Limited(request, most, turn), response);
        } finally {
            turn.end();
        }
    }

    private static final class Limited extends HttpServletRequestWrapper {
        private final int most;

        private final RequestBodyLimits.Turn turn;

        Limited(HttpServletRequest request, int most, RequestBodyLimits.Turn turn) {
            super(request);
            this.most = most;
            this.turn = turn;
        }

        @Override
        public ServletInputStream getInputStream() throws IOException {
            ServletInputStream in = super.getInputStream();
            return new ServletInputStream() {
                private long left = most;

                @Override
                public int read() throws IOException {
                    turn.begin();
                    int b = in.read();
                    count(b < 0 ? -1 : 1);
                    return b;
                }

                @Override
                public int read(byte[] to, int offset, int length) throws IOException {
                    turn.begin();
                    int n = in.read(to, offset, length);
                    count(n);
                    return n;
                }

                private void count(int n) throws RequestBodyLimits.Refused {
                    turn.came(n);
                    left -= Math.max(0, n);
                    if (left < 0) {
                        throw new RequestBodyLimits.Refused(new Problem(HttpStatus.CONTENT_TOO_LARGE, CODE, MESSAGE));
                    }
                }

                @Override
                public boolean isFinished() {
                    return in.isFinished();
                }

                @Override
                public boolean isReady() {
                    return in.isReady();
                }

                @Override
                public void setReadListener(ReadListener listener) {
                    in.setReadListener(listener);
                }
            };
        }

        @Override
        public BufferedReader getReader() throws IOException {
            return new BufferedReader(new InputStreamReader(getInputStream(), StandardCharsets.UTF_8));
        }
    }
}
