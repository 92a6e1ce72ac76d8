package yarrowmark.server.access;

import static yarrowmark.server.platform.Require.require;

import io.swagger.v3.oas.annotations.Parameter;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Size;
import java.net.InetAddress;
import java.net.UnknownHostException;
import java.time.Clock;
import java.util.List;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.security.authentication.AnonymousAuthenticationToken;
import org.springframework.security.authentication.AuthenticationManager;
import org.springframework.security.authentication.InternalAuthenticationServiceException;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.AuthenticationException;
import org.springframework.security.core.authority.SimpleGrantedAuthority;
import org.springframework.security.core.context.SecurityContext;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.web.csrf.CookieCsrfTokenRepository;
import org.springframework.security.web.csrf.CsrfToken;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import yarrowmark.server.platform.PlainLine;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.TooManyTries;
import yarrowmark.server.platform.TryLimit;
import yarrowmark.server.platform.http.AccessEnded;
import yarrowmark.server.platform.records.ShelfId;

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

    /** @param shelf which shelf this is, for as long as its records last: what is typed for one is never sent to another */
    record Access(
            State state,
            String lab,
            @Nullable String shelf,
            @Nullable String person,
            @Nullable String role,
            @Nullable KnownSignIn demo) {}

    record NewOwner(
            @NotBlank @PlainLine @Size(max = 80) String name,
            @NotBlank @Size(max = 400) String password,
            @NotBlank @PlainLine @Size(max = 120) String lab) {}

    record SignIn(@NotBlank @PlainLine @Size(max = 80) String name, @NotBlank @Size(max = 400) String password) {}

    private final People people;
    private final AuthenticationManager manager;
    private final boolean demo;
    private final TryLimit limit;
    private final AccountLimit accounts;
    private final SignedPlaces places;
    private final Invitations invitations;
    private final SecurityLog security;
    private final CookieCsrfTokenRepository pageTokens;
    private final SignInCookie signInCookie;
    private final ShelfId shelf;

    AccessController(
            People people,
            AuthenticationManager manager,
            SignedPlaces places,
            Invitations invitations,
            SecurityLog security,
            CookieCsrfTokenRepository pageTokens,
            SignInCookie signInCookie,
            ShelfId shelf,
            Clock clock,
            @Value("${yarrowmark.demo}") boolean demo) {
        this.people = people;
        this.manager = manager;
        this.places = places;
        this.invitations = invitations;
        this.security = security;
        this.pageTokens = pageTokens;
        this.signInCookie = signInCookie;
        this.shelf = shelf;
        this.demo = demo;
        this.limit = new TryLimit(MOST_WRONG, "names or passwords", clock);
        this.accounts = new AccountLimit(clock);
    }

    /** Who is here. The token argument makes the answer carry the CSRF cookie that later requests need. */
    @GetMapping
    Access access(@Parameter(hidden = true) CsrfToken csrf, @Nullable Authentication who) {
        csrf.getToken();
        if (!people.hasOwner()) {
            return new Access(State.NEEDS_OWNER, people.labName(), null, null, null, null);
        }
        KnownSignIn known = demo ? new KnownSignIn(DemoSignIn.NAME, DemoSignIn.PASSWORD) : null;
        if (who == null || who instanceof AnonymousAuthenticationToken) {
            return new Access(State.SIGNED_OUT, people.labName(), null, null, null, known);
        }
        String role =
                require(who.getAuthorities().iterator().next().getAuthority()).replace("ROLE_", "");
        return new Access(State.SIGNED_IN, people.labName(), shelf.id(), who.getName(), role, known);
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
        String address = request.getRemoteAddr();
        String name = body.name().strip();
        TryLimit.Try attempt;
        try {
            attempt = limit.begin(address);
            if (!isLoopback(address)) {
                accounts.begin(name);
            }
        } catch (TooManyTries e) {
            security.note("too many tries", name, address);
            throw e;
        }
        String before = people.hashOf(name);
        try {
            manager.authenticate(UsernamePasswordAuthenticationToken.unauthenticated(name, body.password()));
            attempt.wasRight();
            accounts.wasRight(name);
        } catch (InternalAuthenticationServiceException e) {
            // The records are out of reach: that says nothing about the password.
            attempt.wasRight();
            accounts.wasRight(name);
            throw e;
        } catch (AuthenticationException e) {
            security.note("a wrong name or password", name, address);
            throw wrong();
        }
        // The password may be changed in this very moment, and whoever came with the old one is out then.
        return enter(
                people.named(name),
                p -> p.passwordHash().equals(before) || people.isPassword(p, body.password()),
                csrf,
                request,
                response);
    }

    private static Problem wrong() {
        return new Problem(HttpStatus.UNAUTHORIZED, "wrong-sign-in", "This name and password do not belong together.");
    }

    /** Signs in: a new token for the browser, another for its pages, and a place that can be ended from elsewhere. */
    private Access enter(
            Person person,
            Predicate<Person> isStillRight,
            CsrfToken csrf,
            HttpServletRequest request,
            HttpServletResponse response) {
        // Whoever was signed in here before is not any more.
        if (request.getAttribute(AccessEnded.PLACE) instanceof Long place) {
            places.leave(place);
        }
        SignedPlaces.Begun begun = places.begin(
                        person.id(), request.getRemoteAddr(), request.getHeader(HttpHeaders.USER_AGENT), isStillRight)
                .orElseThrow(AccessController::wrong);
        signInCookie.give(begun.token(), request, response);
        Authentication who = UsernamePasswordAuthenticationToken.authenticated(
                person.name(), null, List.of(new SimpleGrantedAuthority("ROLE_" + person.role())));
        SecurityContext context = SecurityContextHolder.createEmptyContext();
        context.setAuthentication(who);
        SecurityContextHolder.setContext(context);
        // A token that a page had before is worth nothing after it.
        pageTokens.saveToken(pageTokens.generateToken(request), request, response);
        security.note("signed in", person.name(), request.getRemoteAddr());
        return access(csrf, who);
    }

    record LinkToken(@NotBlank @Size(max = 100) String token) {}

    record Welcome(
            @NotBlank @Size(max = 100) String token,
            @Nullable @Size(max = 80) String name,
            @NotBlank @Size(max = 400) String password,
            @Nullable Boolean endKeys) {}

    /** What a link is for. */
    @PostMapping("/invitation/look")
    Invitations.OpenOne look(@Valid @RequestBody LinkToken body, HttpServletRequest request) {
        TryLimit.Try attempt = limit.begin(request.getRemoteAddr());
        Invitations.OpenOne found = invitations.look(body.token());
        attempt.wasRight();
        return found;
    }

    /** Follows a link, and signs in. */
    @PostMapping("/invitation")
    Access welcome(
            @Valid @RequestBody Welcome body,
            @Parameter(hidden = true) CsrfToken csrf,
            HttpServletRequest request,
            HttpServletResponse response) {
        TryLimit.Try attempt = limit.begin(request.getRemoteAddr());
        invitations.look(body.token());
        attempt.wasRight();
        return enter(
                invitations.use(body.token(), body.name(), body.password(), body.endKeys()),
                p -> true,
                csrf,
                request,
                response);
    }

    @PostMapping("/sign-out")
    Access signOut(@Parameter(hidden = true) CsrfToken csrf, HttpServletRequest request, HttpServletResponse response) {
        if (request.getAttribute(AccessEnded.PLACE) instanceof Long place) {
            places.leave(place);
        }
        signInCookie.takeBack(request, response);
        SecurityContextHolder.clearContext();
        return access(csrf, null);
    }
}
