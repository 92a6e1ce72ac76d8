package yarrowmark.server.access;

import jakarta.servlet.http.Cookie;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.http.ResponseCookie;
import org.springframework.stereotype.Component;
import org.springframework.web.util.WebUtils;
import yarrowmark.server.platform.records.ShelfId;

/**
 * The cookie by which a browser stays signed in: a random token whose hash the records keep, so that a sign-in outlives the
 * program. There is no session in memory beside it. Its name is of this shelf alone: browsers do not tell the ports of a
 * machine apart, and two shelves on one machine must not sign each other's people out.
 */
@Component
class SignInCookie {
    private static final int NAME_LENGTH = 8;

    private final ShelfId shelf;

    SignInCookie(ShelfId shelf) {
        this.shelf = shelf;
    }

    private String name() {
        return "yarrowmark-" + shelf.id().substring(0, NAME_LENGTH);
    }

    @Nullable
    String tokenOf(HttpServletRequest request) {
        Cookie cookie = WebUtils.getCookie(request, name());
        return cookie == null || cookie.getValue().isEmpty() ? null : cookie.getValue();
    }

    void give(String token, HttpServletRequest request, HttpServletResponse response) {
        set(ResponseCookie.from(name(), token), request, response);
    }

    void takeBack(HttpServletRequest request, HttpServletResponse response) {
        set(ResponseCookie.from(name(), "").maxAge(0), request, response);
    }

    private static void set(
            ResponseCookie.ResponseCookieBuilder cookie, HttpServletRequest request, HttpServletResponse response) {
        response.addHeader(
                HttpHeaders.SET_COOKIE,
                cookie.path("/")
                        .httpOnly(true)
                        .sameSite("Lax")
                        .secure(request.isSecure())
                        .build()
                        .toString());
    }
}
