package yarrowmark.server.access;

import jakarta.servlet.http.HttpServletRequest;
import java.net.InetAddress;
import java.net.UnknownHostException;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.springframework.security.authentication.AnonymousAuthenticationToken;
import org.springframework.security.authorization.AuthorizationDecision;
import org.springframework.security.authorization.AuthorizationManager;
import org.springframework.security.authorization.AuthorizationResult;
import org.springframework.security.core.Authentication;
import org.springframework.security.web.access.intercept.RequestAuthorizationContext;

/**
 * Who may ask how the program is: whoever sits at the machine, an owner, and a program with any key. What another program on
 * this machine passes on for somebody else is not from the machine.
 */
final class HealthAccess implements AuthorizationManager<RequestAuthorizationContext> {
    @Override
    public AuthorizationResult authorize(
            Supplier<? extends @Nullable Authentication> who, RequestAuthorizationContext context) {
        HttpServletRequest request = context.getRequest();
        if (isAtTheMachine(request)) {
            return new AuthorizationDecision(true);
        }
        Authentication known = who.get();
        return new AuthorizationDecision(known != null
                && !(known instanceof AnonymousAuthenticationToken)
                && (has(known, "ROLE_" + Role.OWNER) || !has(known, SignedInFilter.HERSELF)));
    }

    private static boolean has(Authentication who, String authority) {
        return who.getAuthorities().stream().anyMatch(a -> authority.equals(a.getAuthority()));
    }

    private static boolean isAtTheMachine(HttpServletRequest request) {
        if (request.getHeader("Forwarded") != null || request.getHeader("X-Forwarded-For") != null) {
            return false;
        }
        try {
            return InetAddress.getByName(request.getRemoteAddr()).isLoopbackAddress();
        } catch (UnknownHostException e) {
            return false;
        }
    }
}
