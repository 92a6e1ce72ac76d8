package yarrowmark.server.bench;

import org.springframework.boot.tomcat.servlet.TomcatServletWebServerFactory;
import org.springframework.boot.web.server.WebServerFactoryCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** What goes through one call of the system at once: with the usual 8 KiB the calls take longer than the bytes. */
@Configuration
class NetworkBuffers {
    private static final String BYTES = "65536";

    @Bean
    WebServerFactoryCustomizer<TomcatServletWebServerFactory> largerBuffers() {
        return factory -> factory.addConnectorCustomizers(connector -> {
            connector.setProperty("socket.appReadBufSize", BYTES);
            connector.setProperty("socket.appWriteBufSize", BYTES);
        });
    }
}
