package yarrowmark.server.platform.http;

import static yarrowmark.server.platform.Require.require;

import io.swagger.v3.oas.models.OpenAPI;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.Map;
import org.springdoc.core.customizers.OpenApiCustomizer;
import org.springframework.stereotype.Component;

/** Says in the API document what each request does. The sentences stand in one file, so that they can be read as one text. */
@Component
class InterfaceWords implements OpenApiCustomizer {
    private static final String FILE = "interface-words.txt";

    /** By method and path, such as "GET /api/models". */
    private final Map<String, String> words = read();

    private static Map<String, String> read() {
        Map<String, String> words = new HashMap<>();
        try (InputStream in = require(InterfaceWords.class.getResourceAsStream(FILE));
                BufferedReader lines = new BufferedReader(new InputStreamReader(in, StandardCharsets.UTF_8))) {
            lines.lines().filter(line -> !line.startsWith("#")).forEach(line -> {
                String[] parts = line.split(" \\| ", 2);
                words.put(parts[0], parts[1]);
            });
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return words;
    }

    @Override
    public void customise(OpenAPI document) {
        document.getPaths().forEach((path, item) -> item.readOperationsMap()
                .forEach((method, operation) -> operation.setSummary(words.get(method + " " + path))));
    }
}
