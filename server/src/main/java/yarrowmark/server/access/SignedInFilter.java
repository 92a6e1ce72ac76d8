package yarrowmark.server.access;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.List;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.authority.SimpleGrantedAuthority;
import org.springframework.security.core.context.SecurityContext;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.web.context.SecurityContextRepository;
import org.springframework.web.filter.OncePerRequestFilter;
import yarrowmark.server.platform.http.AccessEnded;

/**
 * Says who a request comes from: whoever is signed in at the place that its cookie names, as they are called and may do
 * now. A cookie whose place is not open is worth nothing.
 */
class SignedInFilter extends OncePerRequestFilter {
    /** Somebody who is signed in, and no program. */
    static final String HERSELF = "HERSELF";

    private final SecurityContextRepository contexts;
    private final SignInCookie cookie;
    private final SignedPlaces places;

    SignedInFilter(SecurityContextRepository contexts, SignInCookie cookie, SignedPlaces places) {
        this.contexts = contexts;
        this.cookie = cookie;
        this.places = places;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        String token = cookie.tokenOf(request);
        SignedPlaces.Open who = token == null ? null : places.at(token);
        if (who != null) {
            request.setAttribute(AccessEnded.PLACE, who.place());
            request.setAttribute(
                    AccessEnded.OPENER,
                    new AccessEnded.Opener(
                            AccessEnded.place(who.place()), who.startedAt().plus(SignedPlaces.LONGEST)));
            SecurityContext context = SecurityContextHolder.createEmptyContext();
            context.setAuthentication(UsernamePasswordAuthenticationToken.authenticated(
                    who.name(),
                    null,
                    List.of(new SimpleGrantedAuthority("ROLE_" + who.role()), new SimpleGrantedAuthority(HERSELF))));
            SecurityContextHolder.setContext(context);
            // An answer that is written by another thread is of the same person.
            contexts.saveContext(context, request, response);
        }
        chain.doFilter(request, response);
    }
}
