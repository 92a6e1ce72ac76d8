package yarrowmark.server.platform;

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
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.http.MediaType;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

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

    static final String MESSAGE =
            "The request is larger than 2 MB, 16 MB for a photo or another file, or 128 MB for an import, and was not read. Nothing was stored.";

    private static final class Exceeded extends IOException {
        Exceeded() {
            super(MESSAGE);
        }
    }

    static boolean wasExceeded(Throwable e) {
        for (Throwable t = e; t != null; t = t.getCause()) {
            if (t instanceof Exceeded) {
                return true;
            }
        }
        return false;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        int most = request.getRequestURI().endsWith("/photo")
                        || request.getRequestURI().endsWith("/evidence")
                ? MOST_PHOTO_BYTES
                : request.getRequestURI().endsWith("/import") ? MOST_IMPORT_BYTES : MOST_BYTES;
        if (request.getContentLengthLong() > most) {
            response.setStatus(413);
            response.setContentType(MediaType.APPLICATION_PROBLEM_JSON_VALUE);
            response.getWriter().write("{\"status\":413,\"code\":\"" + CODE + "\",\"detail\":\"" + MESSAGE + "\"}");
            return;
        }
        chain.doFilter(request.getContentLengthLong() < 0 ? new Limited(request, most) : request, response);
    }

    private static final class Limited extends HttpServletRequestWrapper {
        private final int most;

        Limited(HttpServletRequest request, int most) {
            super(request);
            this.most = most;
        }

        @Override
        public ServletInputStream getInputStream() throws IOException {
            ServletInputStream in = super.getInputStream();
            return new ServletInputStream() {
                private long left = most;

                @Override
                public int read() throws IOException {
                    int b = in.read();
                    count(b < 0 ? 0 : 1);
                    return b;
                }

                @Override
                public int read(byte[] to, int offset, int length) throws IOException {
                    int n = in.read(to, offset, length);
                    count(Math.max(0, n));
                    return n;
                }

                private void count(int n) throws Exceeded {
                    left -= n;
                    if (left < 0) {
                        throw new Exceeded();
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
