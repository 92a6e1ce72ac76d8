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
import yarrowmark.server.platform.records.ShelfId;

/** Every answer to a device, a refusal too, says which shelf it comes from, and which protocol is spoken. */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE)
class ShelfHeader extends OncePerRequestFilter {
    /** Which of the device protocol's versions is spoken here: higher once an older device could no longer follow. */
    private static final String PROTOCOL_HEADER = "Yarrowmark-Protocol";

    private static final String PROTOCOL = "1";

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
        response.setHeader(PROTOCOL_HEADER, PROTOCOL);
        chain.doFilter(request, response);
    }
}
