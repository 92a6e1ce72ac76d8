package yarrowmark.server.access;

import jakarta.servlet.http.Cookie;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.http.ResponseCookie;
import org.springframework.web.util.WebUtils;

/**
 * The cookie by which a browser stays signed in: a random token whose hash the records keep, so that a sign-in outlives the
 * program. There is no session in memory beside it.
 */
final class SignInCookie {
    private static final String NAME = "yarrowmark";

    private SignInCookie() {}

    static @Nullable String tokenOf(HttpServletRequest request) {
        Cookie cookie = WebUtils.getCookie(request, NAME);
        return cookie == null || cookie.getValue().isEmpty() ? null : cookie.getValue();
    }

    static void give(String token, HttpServletRequest request, HttpServletResponse response) {
        set(ResponseCookie.from(NAME, token), request, response);
    }

    static void takeBack(HttpServletRequest request, HttpServletResponse response) {
        set(ResponseCookie.from(NAME, "").maxAge(0), request, response);
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
