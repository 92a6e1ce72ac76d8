package yarrowmark.server.platform.http;

import jakarta.servlet.RequestDispatcher;
import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.io.Writer;
import java.nio.charset.StandardCharsets;
import org.apache.catalina.Host;
import org.apache.catalina.connector.Request;
import org.apache.catalina.connector.Response;
import org.apache.catalina.core.StandardHost;
import org.apache.catalina.valves.ErrorReportValve;
import org.jspecify.annotations.Nullable;
import org.springframework.boot.tomcat.servlet.TomcatServletWebServerFactory;
import org.springframework.boot.web.server.WebServerFactoryCustomizer;
import org.springframework.boot.webmvc.error.ErrorController;
import org.springframework.context.annotation.Bean;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.RequestMapping;

/**
 * What is answered where no room of the program was asked, such as to an address that cannot be read: in plain words, never
 * with what the libraries below would say of themselves.
 */
@Controller
class LastAnswer implements ErrorController {
    private static final String PAGE =
            """
            <!doctype html>
            <html lang="en">
            <head><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>%1$s</title></head>
            <body style="max-width:36em;margin:4em auto;padding:0 1em;font-family:serif;background:#faf8f1;color:#1d2a24">
            <h1 style="font-size:1.4em">%1$s</h1>
            <p>%2$s</p>
            <p><a style="color:#2f6247" href="/">To the start</a></p>
            </body>
            </html>
            """;

    private static String title(int status) {
        return switch (status) {
            case 400 -> "This address cannot be read";
            case 404 -> "There is nothing at this address";
            default -> "This cannot be answered";
        };
    }

    private static String words(int status) {
        return switch (status) {
            case 400 -> "Something in it cannot be read. Check how it is written.";
            case 404 -> "It may have been mistyped.";
            case 413, 431 -> "What was sent is too large.";
            case 503 -> "The server is busy. Try again in a moment.";
            default ->
                status >= 500
                        ? "Something unexpected happened. Try again; nothing that was stored is lost."
                        : "The server does not take such a question.";
        };
    }

    static String page(int status) {
        return PAGE.formatted(title(status), words(status));
    }

    @RequestMapping("/error")
    ResponseEntity<Object> answer(HttpServletRequest request) {
        int status = status(request);
        String accepted = request.getHeader("Accept");
        if (accepted != null && accepted.contains(MediaType.TEXT_HTML_VALUE)) {
            return ResponseEntity.status(status)
                    .contentType(new MediaType(MediaType.TEXT_HTML, StandardCharsets.UTF_8))
                    .body(page(status));
        }
        return ResponseEntity.status(status)
                .contentType(MediaType.APPLICATION_PROBLEM_JSON)
                .body(ProblemDetail.forStatusAndDetail(HttpStatus.valueOf(status), words(status)));
    }

    private static int status(HttpServletRequest request) {
        Object said = request.getAttribute(RequestDispatcher.ERROR_STATUS_CODE);
        // Whoever asks for this address without an error asks for nothing.
        return said instanceof Integer code && HttpStatus.resolve(code) != null ? code : 404;
    }

    /** Of a request that did not get as far as the program. */
    public static final class BeforeTheProgram extends ErrorReportValve {
        @Override
        protected void report(Request request, Response response, @Nullable Throwable trouble) {
            int status = response.getStatus();
            if (status < 400 || response.getContentWritten() > 0 || !response.setErrorReported()) {
                return;
            }
            response.setContentType("text/html");
            response.setCharacterEncoding(StandardCharsets.UTF_8.name());
            try {
                Writer writer = response.getReporter();
                if (writer != null) {
                    writer.write(page(status));
                    response.finishResponse();
                }
            } catch (IOException e) {
                // Whoever asked is gone.
            }
        }
    }

    @Bean
    static WebServerFactoryCustomizer<TomcatServletWebServerFactory> plainErrors() {
        return factory -> factory.addContextCustomizers(context -> {
            Host host = (Host) context.getParent();
            ((StandardHost) host).setErrorReportValveClass(BeforeTheProgram.class.getName());
        });
    }
}
