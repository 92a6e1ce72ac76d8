package yarrowmark.server.platform.http;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.net.InetAddress;
import java.net.UnknownHostException;
import java.util.HashSet;
import java.util.Locale;
import java.util.Set;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.http.MediaType;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * Answers only to names that are this machine's own. A page from elsewhere can make its own name lead here, and its browser
 * would then take that page and this program for one: an address in numbers cannot be made to do that, a name can.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE + 1)
class HostCheck extends OncePerRequestFilter {
    private static final int MISDIRECTED = 421;

    private final Set<String> names;

    /** @param more names by which this machine is reached besides its own, with commas between */
    HostCheck(@Value("${yarrowmark.hosts:}") String more) {
        Set<String> all = new HashSet<>(Set.of("localhost"));
        for (String name : (more + "," + ownName()).split(",")) {
            String plain = name.strip().toLowerCase(Locale.ROOT);
            if (!plain.isEmpty()) {
                all.add(plain);
                // Its first part alone, and as it announces itself on its own network.
                String first = plain.replaceAll("\\..*$", "");
                all.add(first);
                all.add(first + ".local");
            }
        }
        this.names = Set.copyOf(all);
    }

    private static String ownName() {
        try {
            return InetAddress.getLocalHost().getHostName();
        } catch (UnknownHostException e) {
            return "";
        }
    }

    boolean isOwn(String host) {
        String plain = host.toLowerCase(Locale.ROOT).replaceAll("\\.$", "");
        return names.contains(plain)
                || plain.matches("\\d{1,3}(\\.\\d{1,3}){3}")
                || plain.matches("\\[[0-9a-f:.]{2,45}]")
                || plain.matches("[0-9a-f]{0,4}(:[0-9a-f.]{0,15}){2,8}");
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        if (isOwn(request.getServerName())) {
            chain.doFilter(request, response);
            return;
        }
        response.setStatus(MISDIRECTED);
        response.setContentType(MediaType.APPLICATION_PROBLEM_JSON_VALUE);
        response.setCharacterEncoding("UTF-8");
        response.getWriter()
                .write(
                        "{\"status\":421,\"code\":\"not-this-machine\",\"detail\":\"Yarrowmark does not answer to this name. Open it by its address, or name it in YARROWMARK_HOSTS.\"}");
    }
}
