package yarrowmark.server.access;

import java.util.Map;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpMethod;
import org.springframework.security.authentication.AuthenticationManager;
import org.springframework.security.config.annotation.authentication.configuration.AuthenticationConfiguration;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.config.http.SessionCreationPolicy;
import org.springframework.security.crypto.argon2.Argon2PasswordEncoder;
import org.springframework.security.crypto.bcrypt.BCryptPasswordEncoder;
import org.springframework.security.crypto.password.DelegatingPasswordEncoder;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.security.web.AuthenticationEntryPoint;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.access.AccessDeniedHandler;
import org.springframework.security.web.context.RequestAttributeSecurityContextRepository;
import org.springframework.security.web.context.SecurityContextRepository;
import org.springframework.security.web.csrf.CookieCsrfTokenRepository;
import org.springframework.security.web.csrf.CsrfFilter;

/** Which requests need what: people have a session cookie and a CSRF token, devices have a token of their own. */
@Configuration
class AccessRules {
    /** Built files are everybody's and say nothing about who asks: no session, no cookie. */
    @Bean
    @Order(0)
    SecurityFilterChain fileRules(HttpSecurity http) throws Exception {
        return http.securityMatcher("/assets/**", "/runner/**", "/w", "/w/**", "/favicon.ico")
                .csrf(c -> c.disable())
                .requestCache(c -> c.disable())
                .sessionManagement(s -> s.sessionCreationPolicy(SessionCreationPolicy.STATELESS))
                .headers(h -> h.cacheControl(c -> c.disable())
                        .frameOptions(f -> f.sameOrigin())
                        .httpStrictTransportSecurity(t -> t.disable()))
                .authorizeHttpRequests(r -> r.anyRequest().permitAll())
                .build();
    }

    /**
     * The device's own feature checks its token: it knows seats, this package does not. No strict transport security: with
     * a certificate of this machine's own, browsers would then refuse for good instead of asking.
     */
    @Bean
    @Order(1)
    SecurityFilterChain deviceRules(HttpSecurity http) throws Exception {
        return http.securityMatcher("/api/device/**")
                .csrf(c -> c.disable())
                .requestCache(c -> c.disable())
                .sessionManagement(s -> s.sessionCreationPolicy(SessionCreationPolicy.STATELESS))
                .headers(h -> h.contentSecurityPolicy(p -> p.policyDirectives("default-src 'none'"))
                        .frameOptions(f -> f.sameOrigin())
                        .httpStrictTransportSecurity(t -> t.disable()))
                .authorizeHttpRequests(r -> r.anyRequest().permitAll())
                .build();
    }

    /** Questions that are too long for an address: they change nothing, so readers ask them too. */
    private static final String[] QUESTIONS = {
        "/api/standings/tried",
        "/api/formulas/read",
        "/api/suites/read",
        "/api/rules/try",
        "/api/facts/understand",
        "/api/facts/read",
    };

    /** What a program does that brings scores: a configuration, a session on it, its scores, or a whole file of them. */
    private static final String[] DELIVERIES = {
        "/api/units/*/configurations", "/api/sessions", "/api/sessions/*/scores", "/api/sessions/*/points",
        "/api/sessions/*/look", "/api/sessions/*/end", "/api/sessions/*/resume", "/api/ledger/import",
    };

    @Bean
    @Order(2)
    SecurityFilterChain peopleRules(
            HttpSecurity http,
            SignedPlaces places,
            SignInCookie cookie,
            ApiKeys keys,
            SecurityLog security,
            CookieCsrfTokenRepository pageTokens)
            throws Exception {
        AuthenticationEntryPoint signedOut =
                (request, response, e) -> Answers.problem(response, 401, "signed-out", "Sign in first.");
        AccessDeniedHandler denied = (request, response, e) -> Answers.problem(
                response,
                403,
                "not-allowed",
                "This is not allowed: your role or key does not include it, or the page is older than your session. Reload the page and try again.");
        // Who comes is found anew with each request; nothing but it remembers.
        SecurityContextRepository contexts = new RequestAttributeSecurityContextRepository();
        return http.securityContext(c -> c.securityContextRepository(contexts))
                .csrf(c -> c.spa()
                        .csrfTokenRepository(pageTokens)
                        // Nothing but a program itself sends a key, so no other page can make it do so.
                        .ignoringRequestMatchers(request -> KeyFilter.keyOf(request) != null))
                .requestCache(c -> c.disable())
                .sessionManagement(s -> s.sessionCreationPolicy(SessionCreationPolicy.STATELESS))
                .headers(h -> h.frameOptions(f -> f.sameOrigin()).httpStrictTransportSecurity(t -> t.disable()))
                .exceptionHandling(e -> e.authenticationEntryPoint(signedOut).accessDeniedHandler(denied))
                .addFilterBefore(new SignedInFilter(contexts, cookie, places), CsrfFilter.class)
                .addFilterBefore(new KeyFilter(contexts, keys, security), CsrfFilter.class)
                .authorizeHttpRequests(r -> r.requestMatchers("/api/access/**")
                        .permitAll()
                        .requestMatchers(HttpMethod.GET, "/api/kept/*")
                        .permitAll()
                        .requestMatchers(HttpMethod.GET, "/api/people/me")
                        .authenticated()
                        // One's own account is changed by oneself, never by a key: whoever found one could else stay.
                        .requestMatchers("/api/people/me", "/api/people/me/**")
                        .hasAuthority(SignedInFilter.HERSELF)
                        .requestMatchers(HttpMethod.GET, "/api/people")
                        .authenticated()
                        .requestMatchers("/api/people/**")
                        .hasRole(Role.OWNER.name())
                        .requestMatchers(HttpMethod.GET, "/api/**")
                        .authenticated()
                        .requestMatchers(HttpMethod.POST, QUESTIONS)
                        .authenticated()
                        .requestMatchers(HttpMethod.POST, DELIVERIES)
                        .hasAnyAuthority("ROLE_" + Role.OWNER, "ROLE_" + Role.REVIEWER, KeyFilter.DELIVERS)
                        .requestMatchers("/api/**")
                        .hasAnyRole(Role.OWNER.name(), Role.REVIEWER.name())
                        .requestMatchers("/v3/**")
                        .authenticated()
                        .requestMatchers(HttpMethod.GET, "/actuator/**")
                        .access(new HealthAccess())
                        .requestMatchers("/actuator/**")
                        .denyAll()
                        .anyRequest()
                        .permitAll())
                .build();
    }

    @Bean
    CookieCsrfTokenRepository pageTokens() {
        CookieCsrfTokenRepository repository = CookieCsrfTokenRepository.withHttpOnlyFalse();
        repository.setCookieCustomizer(c -> c.sameSite("Strict"));
        return repository;
    }

    /** Argon2 takes passwords of any length and script. Those of before are known by their own way, and renewed at sign-in. */
    @Bean
    PasswordEncoder passwordEncoder() {
        return passwords();
    }

    static PasswordEncoder passwords() {
        return new DelegatingPasswordEncoder(
                "argon2",
                Map.of(
                        "argon2",
                        new ThrottledPasswordEncoder(Argon2PasswordEncoder.defaultsForSpringSecurity_v5_8()),
                        "bcrypt",
                        new BCryptPasswordEncoder()));
    }

    @Bean
    AuthenticationManager authenticationManager(AuthenticationConfiguration configuration) throws Exception {
        return configuration.getAuthenticationManager();
    }
}
