package yarrowmark.server.access;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.security.Principal;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.HandlerInterceptor;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.records.ShelfId;

/**
 * A page says whose it is with every change. What one person typed must not be stored under the name of somebody who signed in
 * meanwhile in another tab, nor on another shelf that was started at the same address.
 */
@Component
class PageOwner implements HandlerInterceptor, WebMvcConfigurer {
    /** The shelf, a slash, and the person; both escaped as in an address. Absent from programs. */
    static final String HEADER = "Yarrowmark-For";

    private final ShelfId shelf;

    PageOwner(ShelfId shelf) {
        this.shelf = shelf;
    }

    @Override
    public void addInterceptors(InterceptorRegistry registry) {
        registry.addInterceptor(this).addPathPatterns("/api/**");
    }

    @Override
    public boolean preHandle(HttpServletRequest request, HttpServletResponse response, Object handler) {
        String owner = request.getHeader(HEADER);
        Principal who = request.getUserPrincipal();
        if (owner != null && who != null && !owner.isEmpty()) {
            String[] parts = owner.split("/", 2);
            if (!shelf.id().equals(part(parts, 0))) {
                throw refused("This page belongs to another shelf that was at this address before.");
            }
            if (!who.getName().equals(part(parts, 1))) {
                throw refused("This page belongs to " + part(parts, 1) + ", and " + who.getName()
                        + " has signed in meanwhile.");
            }
        }
        return true;
    }

    private static Problem refused(String why) {
        return new Problem(
                HttpStatus.CONFLICT,
                "page-of-another",
                why
                        + " Nothing was stored. What was typed here is kept on this computer for its owner; reload the page.");
    }

    private static @Nullable String part(String[] parts, int at) {
        try {
            return parts.length > at ? URLDecoder.decode(parts[at], StandardCharsets.UTF_8) : null;
        } catch (IllegalArgumentException e) {
            return null;
        }
    }
}
