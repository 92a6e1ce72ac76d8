package yarrowmark.server.bench;

import java.io.IOException;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.context.annotation.Configuration;
import org.springframework.http.HttpStatus;
import org.springframework.http.server.ServerHttpRequest;
import org.springframework.http.server.ServerHttpResponse;
import org.springframework.web.socket.BinaryMessage;
import org.springframework.web.socket.CloseStatus;
import org.springframework.web.socket.WebSocketHandler;
import org.springframework.web.socket.WebSocketSession;
import org.springframework.web.socket.config.annotation.EnableWebSocket;
import org.springframework.web.socket.config.annotation.WebSocketConfigurer;
import org.springframework.web.socket.config.annotation.WebSocketHandlerRegistry;
import org.springframework.web.socket.handler.BinaryWebSocketHandler;
import org.springframework.web.socket.server.HandshakeInterceptor;
import org.springframework.web.util.UriComponentsBuilder;

/**
 * Sends back what a device sends, at once: the shortest way there and back that a page in a browser has. Browsers send no
 * headers of ours with it, so the ticket of the turn opens it; pages of other sites are refused by what the browser says of them.
 */
@Configuration
@EnableWebSocket
class NetworkEcho implements WebSocketConfigurer {
    private static final int MOST_BYTES = 64;

    private final NetworkTurns turns;

    NetworkEcho(NetworkTurns turns) {
        this.turns = turns;
    }

    @Override
    public void registerWebSocketHandlers(WebSocketHandlerRegistry registry) {
        registry.addHandler(new Back(), "/api/device/network/echo").addInterceptors(new Door());
    }

    private final class Door implements HandshakeInterceptor {
        @Override
        public boolean beforeHandshake(
                ServerHttpRequest request,
                ServerHttpResponse response,
                WebSocketHandler handler,
                Map<String, Object> attributes) {
            String ticket = UriComponentsBuilder.fromUri(request.getURI())
                    .build()
                    .getQueryParams()
                    .getFirst("ticket");
            if (ticket == null || !turns.admits(ticket)) {
                response.setStatusCode(HttpStatus.FORBIDDEN);
                return false;
            }
            attributes.put("ticket", ticket);
            return true;
        }

        @Override
        public void afterHandshake(
                ServerHttpRequest request,
                ServerHttpResponse response,
                WebSocketHandler handler,
                @Nullable Exception exception) {}
    }

    private final class Back extends BinaryWebSocketHandler {
        @Override
        public void afterConnectionEstablished(WebSocketSession session) {
            session.setBinaryMessageSizeLimit(MOST_BYTES);
        }

        @Override
        protected void handleBinaryMessage(WebSocketSession session, BinaryMessage message) throws IOException {
            if (!turns.admits((String) session.getAttributes().get("ticket"))) {
                session.close(CloseStatus.POLICY_VIOLATION.withReason("The turn is over."));
                return;
            }
            session.sendMessage(message);
        }

        @Override
        public void handleTransportError(WebSocketSession session, Throwable exception) throws IOException {
            session.close(CloseStatus.SERVER_ERROR);
        }
    }
}
