package yarrowmark.server.platform.http;

import jakarta.servlet.ServletException;
import java.io.IOException;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Semaphore;
import org.apache.catalina.connector.Request;
import org.apache.catalina.connector.Response;
import org.apache.catalina.valves.ValveBase;
import org.apache.coyote.ActionCode;
import org.springframework.boot.tomcat.servlet.TomcatServletWebServerFactory;
import org.springframework.boot.web.server.WebServerFactoryCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.http.HttpStatus;
import yarrowmark.server.platform.Problem;

/**
 * How many bodies are read at once, and how slow they may come. Each takes a thread while it is read, so that many slow
 * ones at one door would close every other door.
 */
@Configuration
class RequestBodyLimits {
    /** Of 200 threads, at one endpoint. */
    static final int AT_ONCE = 40;

    /** A body has this long, and a second more for each of these many bytes. */
    private static final long PATIENCE_NANOS = 12_000_000_000L;

    private static final int BYTES_A_SECOND = 16 * 1024;

    private static final String CUT_OFF = RequestBodyLimits.class.getName() + ".cutOff";

    /** A body that is not read to its end. */
    static final class Refused extends IOException {
        private final transient Problem problem;

        Refused(Problem problem) {
            super(problem.getMessage());
            this.problem = problem;
        }

        Problem problem() {
            return problem;
        }
    }

    private final Map<String, Semaphore> doors = new ConcurrentHashMap<>();

    /** After the answer the rest of a body that was cut off is not waited for: its sender may take for ever. */
    @Bean
    WebServerFactoryCustomizer<TomcatServletWebServerFactory> bodiesCutOff() {
        return factory -> factory.addEngineValves(new ValveBase(true) {
            @Override
            public void invoke(Request request, Response response) throws IOException, ServletException {
                getNext().invoke(request, response);
                if (request.getAttribute(CUT_OFF) != null) {
                    response.finishResponse();
                    response.getCoyoteResponse().action(ActionCode.CLOSE_NOW, new IOException("cut off"));
                }
            }
        });
    }

    /** One body being read. Begun at its first byte, over at its end or at the end of the request. */
    final class Turn {
        private final jakarta.servlet.ServletRequest request;
        private final Semaphore door;
        private boolean began;
        private boolean over;
        private long since;
        private long bytes;

        private Turn(jakarta.servlet.ServletRequest request, Semaphore door) {
            this.request = request;
            this.door = door;
        }

        void begin() throws Refused {
            if (began) {
                return;
            }
            if (!door.tryAcquire()) {
                throw refused(new Problem(
                        HttpStatus.SERVICE_UNAVAILABLE,
                        "too-many-at-once",
                        "Too many send to this address at once. Nothing was stored; try again in a moment."));
            }
            began = true;
            since = System.nanoTime();
        }

        /** @param read how many bytes came; below 0 at the end */
        void came(int read) throws Refused {
            if (read < 0) {
                end();
                return;
            }
            bytes += read;
            long allowed = PATIENCE_NANOS + bytes / BYTES_A_SECOND * 1_000_000_000L;
            if (System.nanoTime() - since > allowed) {
                throw refused(new Problem(
                        HttpStatus.REQUEST_TIMEOUT,
                        "body-too-slow",
                        "What was sent came too slowly to be waited for. Nothing was stored; try again."));
            }
        }

        void end() {
            if (began && !over) {
                over = true;
                door.release();
            }
        }

        private Refused refused(Problem problem) {
            request.setAttribute(CUT_OFF, true);
            return new Refused(problem);
        }
    }

    /** @param path of the request; numbers and keys in it make no door of their own */
    Turn turn(jakarta.servlet.ServletRequest request, String path) {
        String door = path.replaceAll("[0-9a-f-]*\\d[0-9a-f-]*", "#");
        // What nobody serves shares one door, so that made-up addresses make no endless list.
        Semaphore at = doors.size() > 1_000
                ? doors.computeIfAbsent("", d -> new Semaphore(AT_ONCE))
                : doors.computeIfAbsent(door, d -> new Semaphore(AT_ONCE));
        return new Turn(request, at);
    }
}
