package yarrowmark.server.bench;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;
import yarrowmark.server.platform.ShelfId;

/** Every answer to a device, a refusal too, says which shelf it comes from. */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE)
class ShelfHeader extends OncePerRequestFilter {
    /** Asked for late: filters are made before there are records. */
    private final ObjectProvider<ShelfId> shelf;

    ShelfHeader(ObjectProvider<ShelfId> shelf) {
        this.shelf = shelf;
    }

    @Override
    protected boolean shouldNotFilter(HttpServletRequest request) {
        return !request.getRequestURI().startsWith("/api/device/");
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        response.setHeader(ShelfId.HEADER, shelf.getObject().id());
        chain.doFilter(request, response);
    }
}
