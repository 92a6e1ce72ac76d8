package yarrowmark.server.access;

import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpMethod;
import org.springframework.http.MediaType;
import org.springframework.security.authentication.AuthenticationManager;
import org.springframework.security.config.annotation.authentication.configuration.AuthenticationConfiguration;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.config.http.SessionCreationPolicy;
import org.springframework.security.crypto.factory.PasswordEncoderFactories;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.security.web.AuthenticationEntryPoint;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.access.AccessDeniedHandler;

/** Which requests need what: people have a session cookie and a CSRF token, devices have a token of their own. */
@Configuration
class AccessRules {
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

    @Bean
    @Order(2)
    SecurityFilterChain peopleRules(HttpSecurity http) throws Exception {
        AuthenticationEntryPoint signedOut =
                (request, response, e) -> problem(response, 401, "signed-out", "Sign in first.");
        AccessDeniedHandler denied = (request, response, e) -> problem(
                response,
                403,
                "not-allowed",
                "This is not allowed: your role does not include it, or the page is older than your session. Reload the page and try again.");
        return http.csrf(c -> c.spa())
                .requestCache(c -> c.disable())
                .headers(h -> h.frameOptions(f -> f.sameOrigin()).httpStrictTransportSecurity(t -> t.disable()))
                .exceptionHandling(e -> e.authenticationEntryPoint(signedOut).accessDeniedHandler(denied))
                .authorizeHttpRequests(r -> r.requestMatchers("/api/access/**")
                        .permitAll()
                        .requestMatchers(HttpMethod.GET, "/api/kept/*")
                        .permitAll()
                        .requestMatchers(HttpMethod.GET, "/api/**")
                        .authenticated()
                        .requestMatchers("/api/**")
                        .hasAnyRole(Role.OWNER.name(), Role.REVIEWER.name())
                        .anyRequest()
                        .permitAll())
                .build();
    }

    private static void problem(
            jakarta.servlet.http.HttpServletResponse response, int status, String code, String detail)
            throws java.io.IOException {
        response.setStatus(status);
        response.setContentType(MediaType.APPLICATION_PROBLEM_JSON_VALUE);
        response.getWriter()
                .write("{\"status\":" + status + ",\"code\":\"" + code + "\",\"detail\":\"" + detail + "\"}");
    }

    @Bean
    PasswordEncoder passwordEncoder() {
        return PasswordEncoderFactories.createDelegatingPasswordEncoder();
    }

    @Bean
    AuthenticationManager authenticationManager(AuthenticationConfiguration configuration) throws Exception {
        return configuration.getAuthenticationManager();
    }
}
