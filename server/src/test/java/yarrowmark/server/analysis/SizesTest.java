package yarrowmark.server.analysis;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Map;
import org.junit.jupiter.api.Test;
import org.springframework.boot.test.web.server.LocalServerPort;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.ServerTest;

@ServerTest
class SizesTest {
    private static final String SIZES = "/api/compare/sizes";

    @LocalServerPort
    private int port;

    @Test
    void aLabSaysHowDifferencesArePut() {
        Client owner = Client.owner(port);
        assertThat(owner.get(SIZES).body().path("sizes").asString()).isEqualTo("PERCENT");
        assertThat(owner.put(SIZES, Map.of("sizes", "UNIT")).status()).isEqualTo(200);
        assertThat(owner.get(SIZES).body().path("sizes").asString()).isEqualTo("UNIT");
        assertThat(owner.put(SIZES, Map.of("sizes", "FURLONGS")).status()).isEqualTo(400);
        assertThat(owner.put(SIZES, Map.of("sizes", "PERCENT")).status()).isEqualTo(200);
    }
}
