package yarrowmark.server.platform.http;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.beans.factory.annotation.Qualifier;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.method.HandlerMethod;
import org.springframework.web.servlet.mvc.method.annotation.RequestMappingHandlerMapping;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.node.ObjectNode;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.ServerTest;

/**
 * The interface's types are generated from web/openapi.json. This test fails where that file is not what the server
 * says; run with -Dyarrowmark.write-api to write it anew, and look at the difference before committing it.
 */
@ServerTest
class ApiDocumentTest {
    private static final Path FILE = Path.of("..", "web", "openapi.json");

    @LocalServerPort
    private int port;

    @Autowired
    @Qualifier("requestMappingHandlerMapping")
    private RequestMappingHandlerMapping mapping;

    @Test
    void theCommittedApiDocumentIsTheServersOwn() throws IOException {
        ObjectNode document =
                (ObjectNode) Client.owner(port).get("/v3/api-docs").body();
        document.remove("servers");
        String now = Client.JSON
                        .rebuild()
                        .enable(SerializationFeature.INDENT_OUTPUT, SerializationFeature.ORDER_MAP_ENTRIES_BY_KEYS)
                        .build()
                        .writeValueAsString(Client.JSON.treeToValue(document, Object.class))
                + "\n";
        if (System.getProperty("yarrowmark.write-api") != null) {
            Files.writeString(FILE, now);
        }
        JsonNode committed = Client.JSON.readTree(Files.readString(FILE));
        assertThat(Client.JSON.readTree(now))
                .as("web/openapi.json differs from the server; see this test's comment")
                .isEqualTo(committed);
    }

    /** Two bodies of one name would stand in the document as one. */
    @Test
    void everyBodyHasANameOfItsOwn() {
        Map<String, Set<Class<?>>> byName = new TreeMap<>();
        for (HandlerMethod method : mapping.getHandlerMethods().values()) {
            Stream.concat(
                            Stream.of(method.getMethodParameters())
                                    .filter(p -> p.hasParameterAnnotation(RequestBody.class))
                                    .map(p -> p.getParameterType()),
                            Stream.of(method.getReturnType().getParameterType()))
                    .filter(Class::isRecord)
                    .forEach(c -> byName.computeIfAbsent(c.getSimpleName(), n -> new HashSet<>())
                            .add(c));
        }
        assertThat(byName).hasSizeGreaterThan(100);
        assertThat(byName.values().stream().filter(classes -> classes.size() > 1))
                .isEmpty();
    }

    @Test
    void everyRequestIsSaidInASentence() throws IOException {
        Client.JSON.readTree(Files.readString(FILE)).path("paths").properties().forEach(path -> path.getValue()
                .properties()
                .forEach(operation -> assertThat(
                                operation.getValue().path("summary").asString(""))
                        .as(operation.getKey() + " " + path.getKey() + " in interface-words.txt")
                        .matches("[A-Z].{10,120}\\.")));
    }

    /** What the worked example asks for is there, with the parameters it names. */
    @Test
    void theWorkedExampleAsksForWhatThereIs() throws IOException {
        JsonNode paths = Client.JSON.readTree(Files.readString(FILE)).path("paths");
        String example = Files.readString(Path.of("..", "docs", "api.md"));
        Matcher asked = Pattern.compile("(-X POST )?\"\\$LAB(/api/[^\"?]+)(?:\\?([^\"]*))?\"( -d)?")
                .matcher(example);
        int found = 0;
        while (asked.find()) {
            String path = asked.group(2);
            boolean post = asked.group(1) != null || asked.group(4) != null || path.endsWith("/import");
            JsonNode operation = paths.properties().stream()
                    .filter(p -> path.matches(p.getKey().replaceAll("\\{[^}]+}", "[^/]+")))
                    .map(p -> p.getValue().path(post ? "post" : "get"))
                    .filter(o -> !o.isMissingNode())
                    .findFirst()
                    .orElseThrow(() -> new AssertionError("there is no " + path));
            String parameters = operation.path("parameters").toString();
            for (String part :
                    asked.group(3) == null ? new String[0] : asked.group(3).split("&")) {
                assertThat(parameters).as(path).contains("\"name\":\"" + part.replaceAll("=.*", "") + "\"");
            }
            found++;
        }
        assertThat(found).isGreaterThan(9);
    }
}
