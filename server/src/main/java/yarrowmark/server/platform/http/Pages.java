package yarrowmark.server.platform.http;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.security.SecureRandom;
import java.util.Base64;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.core.io.ClassPathResource;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.ResponseBody;
import org.springframework.web.servlet.view.RedirectView;

/**
 * Serves the two pages: the interface, whatever view its address names, and the page a device under test opens.
 * Each answer has its own nonce, because some of the interface's components write a style element while they are open.
 */
@Controller
class Pages {
    private static final String PLACEHOLDER = "__NONCE__";
    private static final SecureRandom RANDOM = new SecureRandom();
    private final Map<String, String> templates = new ConcurrentHashMap<>();

    @GetMapping(
            path = {
                "/",
                "/shelf",
                "/shelf/**",
                "/suites",
                "/suites/**",
                "/plans",
                "/plans/**",
                "/bench",
                "/bench/**",
                "/ledger",
                "/ledger/**",
                "/compare",
                "/standings",
                "/today",
                "/trends",
                "/write-ups",
                "/write-ups/**",
                "/kept",
                "/people",
                "/people/**",
                "/welcome",
                "/sign-in"
            },
            produces = MediaType.TEXT_HTML_VALUE)
    @ResponseBody
    String view(HttpServletResponse response) {
        return page("index.html", response);
    }

    /** Where saved standings were read before they had pages without a script. */
    @GetMapping("/kept/{key:[A-Za-z0-9_-]{6,60}}")
    RedirectView saved(@PathVariable String key) {
        RedirectView there = new RedirectView("/w/standings/" + key);
        there.setStatusCode(HttpStatus.MOVED_PERMANENTLY);
        return there;
    }

    @GetMapping(
            path = {"/j", "/j/{code}"},
            produces = MediaType.TEXT_HTML_VALUE)
    @ResponseBody
    String device(HttpServletRequest request, HttpServletResponse response) {
        return page("device.html", response);
    }

    private String page(String name, HttpServletResponse response) {
        byte[] bytes = new byte[18];
        RANDOM.nextBytes(bytes);
        String nonce = Base64.getEncoder().encodeToString(bytes);
        response.setHeader("Content-Security-Policy", PageSafety.policy(nonce));
        response.setHeader("Cache-Control", "no-store");
        response.setCharacterEncoding("UTF-8");
        return templates.computeIfAbsent(name, Pages::load).replace(PLACEHOLDER, nonce);
    }

    private static String load(String name) {
        try {
            return new ClassPathResource("web/" + name).getContentAsString(StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException(name + " is not in the program; was the web module built?", e);
        }
    }
}
