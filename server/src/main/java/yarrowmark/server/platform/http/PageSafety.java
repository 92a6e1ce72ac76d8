package yarrowmark.server.platform.http;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpServletResponseWrapper;
import java.io.IOException;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * Headers on every answer: nothing from elsewhere, and cross-origin isolation, which gives the workloads shared memory
 * and a fine clock. Built files carry a hash in their name and may be kept for good.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE)
public class PageSafety extends OncePerRequestFilter {
    /** WebAssembly needs its own permission; blob: workers are not used and not allowed. */
    static String policy(String nonce) {
        return "default-src 'none'; script-src 'self' 'wasm-unsafe-eval'; style-src 'self' 'nonce-" + nonce
                + "'; img-src 'self' data: blob:; media-src blob:; "
                + "font-src 'self'; connect-src 'self'; worker-src 'self'; manifest-src 'self'; frame-src 'self'; "
                + "base-uri 'none'; form-action 'self'; frame-ancestors 'self'";
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        response.setHeader("Cross-Origin-Opener-Policy", "same-origin");
        response.setHeader("Cross-Origin-Embedder-Policy", "require-corp");
        response.setHeader("Cross-Origin-Resource-Policy", "same-origin");
        response.setHeader("X-Content-Type-Options", "nosniff");
        response.setHeader("Referrer-Policy", "no-referrer");
        response.setHeader("Content-Security-Policy", policy("none"));
        if (!request.getRequestURI().startsWith("/assets/")) {
            chain.doFilter(request, response);
            return;
        }
        response.setHeader("Cache-Control", "public, max-age=31536000, immutable");
        chain.doFilter(request, new HttpServletResponseWrapper(response) {
            @Override
            public void setStatus(int status) {
                missing(status);
                super.setStatus(status);
            }

            @Override
            public void sendError(int status) throws IOException {
                missing(status);
                super.sendError(status);
            }

            /** A file that is not there may be there after an update. */
            private void missing(int status) {
                if (status >= HttpServletResponse.SC_BAD_REQUEST) {
                    setHeader("Cache-Control", "no-store");
                }
            }
        });
    }
}
