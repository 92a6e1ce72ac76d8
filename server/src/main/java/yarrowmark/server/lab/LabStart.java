package yarrowmark.server.lab;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import org.springframework.boot.Banner;
import org.springframework.boot.builder.SpringApplicationBuilder;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.util.FileSystemUtils;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.records.FromElsewhere;

/** Starts a server beside, with records that came from elsewhere, and lets each room look over its own. */
final class LabStart {
    private LabStart() {}

    /** @throws LabFault where it does not start, or what is wrong with its records */
    static void tryOut(Map<String, String> environment, Class<?> server) throws IOException {
        Path directory = Files.createTempDirectory("yarrowmark-import");
        List<String> settings = new ArrayList<>(List.of(
                "--server.port=0",
                "--server.address=127.0.0.1",
                "--yarrowmark.demo=false",
                "--logging.level.root=off",
                "--YARROWMARK_VAR=" + directory));
        environment.forEach((name, value) -> {
            if (name.startsWith("YARROWMARK_DB_")) {
                settings.add("--" + name + "=" + value);
            }
        });
        try (ConfigurableApplicationContext context = new SpringApplicationBuilder(server)
                .bannerMode(Banner.Mode.OFF)
                .logStartupInfo(false)
                .run(settings.toArray(String[]::new))) {
            lookOver(context.getBeansOfType(FromElsewhere.class).values());
        } catch (LabFault e) {
            throw e;
        } catch (RuntimeException e) {
            throw new LabFault("a server does not start with these records: " + reason(e));
        } finally {
            FileSystemUtils.deleteRecursively(directory);
        }
    }

    static void lookOver(Collection<FromElsewhere> rooms) {
        for (FromElsewhere room : rooms) {
            try {
                room.lookOver();
            } catch (Problem e) {
                throw new LabFault(String.valueOf(e.getMessage()));
            }
        }
    }

    private static String reason(Throwable trouble) {
        Throwable last = trouble;
        for (int deep = 0; deep < 20 && last.getCause() != null; deep++) {
            last = last.getCause();
        }
        return String.valueOf(last.getMessage()).strip().split("\n", 2)[0];
    }
}
