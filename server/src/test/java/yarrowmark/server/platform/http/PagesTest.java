package yarrowmark.server.platform.http;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.boot.test.web.server.LocalServerPort;
import yarrowmark.server.support.ServerTest;

/** What an address answers that is mistyped: a person our page, a program a problem. */
@ServerTest
class PagesTest {
    @LocalServerPort
    private int port;

    @ParameterizedTest
    @CsvSource({
        "/standings, text/html, 200, text/html",
        "/nothing, text/html, 404, text/html",
        "/nothing/here, 'text/html,*/*;q=0.8', 404, text/html",
        "/nothing, application/json, 404, application/problem+json",
        "/assets/nothing.js, */*, 404, application/problem+json"
    })
    void aPersonGetsAPageAndAProgramAnAnswer(String path, String accepts, int status, String type)
            throws IOException, InterruptedException {
        HttpResponse<String> answer = ask(path, accepts);
        assertThat(answer.statusCode()).isEqualTo(status);
        assertThat(answer.headers().firstValue("Content-Type").orElseThrow()).startsWith(type);
        if (type.equals("text/html")) {
            assertThat(answer.body()).contains("<div id=\"root\">");
            assertThat(answer.headers().firstValue("Content-Security-Policy")).isPresent();
        }
    }

    /** What the libraries below answer by themselves names them, and helps nobody. */
    @ParameterizedTest
    @CsvSource({
        "/j/AMBER-22-X%2FY, text/html, text/html, cannot be read",
        "/j/a%252Fb, text/html, text/html, cannot be read",
        "/shelf/%2F, */*, text/html, cannot be read",
        "/api/models/a%252Fb, application/json, application/problem+json, cannot be read",
        "/error, text/html, text/html, nothing at this address"
    })
    void anAddressThatNoRoomCanReadIsAnsweredInWords(String path, String accepts, String type, String words)
            throws IOException, InterruptedException {
        HttpResponse<String> answer = ask(path, accepts);
        assertThat(answer.statusCode()).isBetween(400, 404);
        assertThat(answer.headers().firstValue("Content-Type").orElseThrow()).startsWith(type);
        assertThat(answer.body()).contains(words).doesNotContainIgnoringCase("tomcat", "whitelabel", "mapping");
    }

    private HttpResponse<String> ask(String path, String accepts) throws IOException, InterruptedException {
        return HttpClient.newHttpClient()
                .send(
                        HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + port + path))
                                .header("Accept", accepts)
                                .build(),
                        HttpResponse.BodyHandlers.ofString());
    }
}
