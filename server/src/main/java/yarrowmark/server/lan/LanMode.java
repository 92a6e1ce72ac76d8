package yarrowmark.server.lan;

import static yarrowmark.server.platform.Require.require;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Clock;
import org.apache.catalina.connector.Connector;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.boot.tomcat.servlet.TomcatServletWebServerFactory;
import org.springframework.boot.web.server.WebServerFactoryCustomizer;
import org.springframework.boot.web.server.context.WebServerApplicationContext;
import org.springframework.context.ApplicationContext;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.web.filter.OncePerRequestFilter;

/** What is different when the whole network may come: plain HTTP is sent on, and the certificate is looked after. */
@Configuration
@ConditionalOnProperty("yarrowmark.lan")
class LanMode {
    private static final Logger LOG = LoggerFactory.getLogger(LanMode.class);
    private final LanCertificate certificate;
    private final Clock clock;

    LanMode(@Value("${" + LanSettings.DIRECTORY + "}") String directory, Clock clock) {
        this.certificate = new LanCertificate(Path.of(directory));
        this.clock = clock;
    }

    @Bean
    LanCertificate lanCertificate() {
        return certificate;
    }

    /** A second door for those who type the address without its https. */
    @Bean
    WebServerFactoryCustomizer<TomcatServletWebServerFactory> plainDoor(
            @Value("${yarrowmark.http-port:8080}") int port, @Value("${server.address}") String address) {
        return factory -> {
            Connector plain = new Connector();
            plain.setPort(port);
            plain.setProperty("address", address);
            factory.addAdditionalConnectors(plain);
        };
    }

    @Bean
    @Order(Ordered.HIGHEST_PRECEDENCE)
    OncePerRequestFilter toHttps(ApplicationContext context) {
        return new OncePerRequestFilter() {
            @Override
            protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
                    throws ServletException, IOException {
                if (request.isSecure()) {
                    chain.doFilter(request, response);
                    return;
                }
                // The name is the one that was asked for, so it leads to this machine; what it may not be is another
                // address in disguise.
                String host = request.getServerName();
                if (!host.matches("[A-Za-z0-9.:\\[\\]-]{1,255}")) {
                    response.sendError(HttpServletResponse.SC_BAD_REQUEST);
                    return;
                }
                String query = request.getQueryString();
                response.setStatus(308);
                response.setHeader(
                        "Location",
                        "https://" + host + ":"
                                + require(((WebServerApplicationContext) context).getWebServer())
                                        .getPort() + request.getRequestURI() + (query == null ? "" : "?" + query));
            }
        };
    }

    /** A renewed certificate is taken up by itself: the server watches the file. */
    @Scheduled(fixedDelayString = "PT12H", initialDelayString = "PT12H")
    void renew() {
        if (certificate.ensure(MachineNames.now(), clock.instant())) {
            LOG.info("The certificate was made anew: {}", LanCertificate.fingerprint(certificate.read()));
        }
    }
}
