package yarrowmark.server.access;

import static yarrowmark.server.platform.Sure.sure;

import io.swagger.v3.oas.annotations.Parameter;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Size;
import java.net.InetAddress;
import java.net.UnknownHostException;
import java.time.Clock;
import org.jspecify.annotations.Nullable;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.http.HttpStatus;
import org.springframework.security.authentication.AnonymousAuthenticationToken;
import org.springframework.security.authentication.AuthenticationManager;
import org.springframework.security.authentication.InternalAuthenticationServiceException;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.AuthenticationException;
import org.springframework.security.core.context.SecurityContext;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.web.context.HttpSessionSecurityContextRepository;
import org.springframework.security.web.csrf.CsrfToken;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.TryLimit;

@RestController
@RequestMapping("/api/access")
class AccessController {
    private static final int MOST_WRONG = 10;

    enum State {
        NEEDS_OWNER,
        SIGNED_OUT,
        SIGNED_IN
    }

    record KnownSignIn(String name, String password) {}

    record Access(
            State state, String lab, @Nullable String person, @Nullable String role, @Nullable KnownSignIn demo) {}

    record NewOwner(
            @NotBlank @Size(max = 80) String name,
            @NotBlank @Size(min = 10, max = 200, message = "must have 10 to 200 characters") String password,
            @NotBlank @Size(max = 120) String lab) {}

    record SignIn(@NotBlank @Size(max = 80) String name, @NotBlank @Size(max = 200) String password) {}

    private final People people;
    private final AuthenticationManager manager;
    private final boolean demo;
    private final TryLimit limit;
    private final HttpSessionSecurityContextRepository contexts = new HttpSessionSecurityContextRepository();

    AccessController(
            People people, AuthenticationManager manager, Clock clock, @Value("${yarrowmark.demo}") boolean demo) {
        this.people = people;
        this.manager = manager;
        this.demo = demo;
        this.limit = new TryLimit(MOST_WRONG, "names or passwords", clock);
    }

    /** Who is here. The token argument makes the answer carry the CSRF cookie that later requests need. */
    @GetMapping
    Access access(@Parameter(hidden = true) CsrfToken csrf, @Nullable Authentication who) {
        csrf.getToken();
        if (!people.hasOwner()) {
            return new Access(State.NEEDS_OWNER, people.labName(), null, null, null);
        }
        KnownSignIn known = demo ? new KnownSignIn(DemoSignIn.NAME, DemoSignIn.PASSWORD) : null;
        if (who == null || who instanceof AnonymousAuthenticationToken) {
            return new Access(State.SIGNED_OUT, people.labName(), null, null, known);
        }
        String role =
                sure(who.getAuthorities().iterator().next().getAuthority()).replace("ROLE_", "");
        return new Access(State.SIGNED_IN, people.labName(), who.getName(), role, known);
    }

    @PostMapping("/owner")
    Access owner(
            @Valid @RequestBody NewOwner body,
            @Parameter(hidden = true) CsrfToken csrf,
            HttpServletRequest request,
            HttpServletResponse response) {
        // On a network, whoever came first would own the shelf. So the first one has to sit at the machine itself.
        if (!isLoopback(request.getRemoteAddr())) {
            throw new Problem(
                    HttpStatus.FORBIDDEN,
                    "not-here",
                    "The owner is named on the machine that Yarrowmark runs on. Open it there first.");
        }
        people.makeOwner(body.name(), body.password(), body.lab());
        return signIn(new SignIn(body.name(), body.password()), csrf, request, response);
    }

    private static boolean isLoopback(String address) {
        try {
            return InetAddress.getByName(address).isLoopbackAddress();
        } catch (UnknownHostException e) {
            return false;
        }
    }

    @PostMapping("/sign-in")
    Access signIn(
            @Valid @RequestBody SignIn body,
            @Parameter(hidden = true) CsrfToken csrf,
            HttpServletRequest request,
            HttpServletResponse response) {
        TryLimit.Try attempt = limit.begin(request.getRemoteAddr());
        Authentication who;
        try {
            who = manager.authenticate(UsernamePasswordAuthenticationToken.unauthenticated(
                    body.name().strip(), body.password()));
            attempt.wasRight();
        } catch (InternalAuthenticationServiceException e) {
            // The records are out of reach: that says nothing about the password.
            attempt.wasRight();
            throw e;
        } catch (AuthenticationException e) {
            throw new Problem(
                    HttpStatus.UNAUTHORIZED, "wrong-sign-in", "This name and password do not belong together.");
        }
        // A session from before signing in may be known to somebody else.
        if (request.getSession(false) != null) {
            request.changeSessionId();
        }
        SecurityContext context = SecurityContextHolder.createEmptyContext();
        context.setAuthentication(who);
        SecurityContextHolder.setContext(context);
        contexts.saveContext(context, request, response);
        return access(csrf, who);
    }

    @PostMapping("/sign-out")
    Access signOut(@Parameter(hidden = true) CsrfToken csrf, HttpServletRequest request) {
        if (request.getSession(false) != null) {
            request.getSession(false).invalidate();
        }
        SecurityContextHolder.clearContext();
        return access(csrf, null);
    }
}
