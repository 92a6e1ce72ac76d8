package yarrowmark.server.access;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.dao.DataAccessException;
import org.springframework.http.HttpHeaders;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.GrantedAuthority;
import org.springframework.security.core.authority.SimpleGrantedAuthority;
import org.springframework.security.core.context.SecurityContext;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.web.context.SecurityContextRepository;
import org.springframework.transaction.TransactionException;
import org.springframework.web.filter.OncePerRequestFilter;
import yarrowmark.server.platform.http.AccessEnded;

/** A program that comes with a key is who the key speaks for, and may do what the key is good for, never more than its person. */
class KeyFilter extends OncePerRequestFilter {
    /** May deliver scores. */
    static final String DELIVERS = "DELIVERS";

    private static final String BEARER = "Bearer ";
    private final SecurityContextRepository contexts;
    private final ApiKeys keys;
    private final SecurityLog security;

    KeyFilter(SecurityContextRepository contexts, ApiKeys keys, SecurityLog security) {
        this.contexts = contexts;
        this.keys = keys;
        this.security = security;
    }

    /** The key of a request; null where it has none of ours. A device's token is none. */
    static @Nullable String keyOf(HttpServletRequest request) {
        String given = request.getHeader(HttpHeaders.AUTHORIZATION);
        return given != null && given.startsWith(BEARER + ApiKeys.START) ? given.substring(BEARER.length()) : null;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        String key = keyOf(request);
        if (key != null) {
            Optional<ApiKeys.Holder> holder;
            try {
                holder = keys.holder(key, request.getRemoteAddr());
            } catch (DataAccessException | TransactionException e) {
                Answers.problem(
                        response,
                        503,
                        "records-away",
                        "The records are out of reach just now. Nothing was changed; try again.");
                return;
            }
            if (holder.isEmpty()) {
                security.note("a key that is none", "", request.getRemoteAddr());
                Answers.problem(
                        response,
                        401,
                        "no-such-key",
                        "This key is not known here: it was taken back, is too old, or was never one.");
                return;
            }
            request.setAttribute(
                    AccessEnded.OPENER,
                    new AccessEnded.Opener(
                            AccessEnded.key(holder.get().keyId()), holder.get().expiresAt()));
            SecurityContext context = SecurityContextHolder.createEmptyContext();
            context.setAuthentication(UsernamePasswordAuthenticationToken.authenticated(
                    holder.get().name(), null, may(holder.get())));
            SecurityContextHolder.setContext(context);
            // An answer that is written by another thread is of the same person.
            contexts.saveContext(context, request, response);
        }
        chain.doFilter(request, response);
    }

    private static List<GrantedAuthority> may(ApiKeys.Holder holder) {
        List<GrantedAuthority> may = new ArrayList<>();
        boolean everything = holder.scope() == ApiKey.Scope.EVERYTHING;
        may.add(new SimpleGrantedAuthority("ROLE_" + (everything ? holder.role() : Role.READER)));
        // A person who became a reader since takes it from their keys as well.
        if (holder.scope() != ApiKey.Scope.READ && holder.role() != Role.READER) {
            may.add(new SimpleGrantedAuthority(DELIVERS));
        }
        return may;
    }
}
