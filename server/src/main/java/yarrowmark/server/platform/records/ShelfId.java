package yarrowmark.server.platform.records;

import java.util.UUID;
import org.springframework.stereotype.Component;
import yarrowmark.server.platform.StartupTask;

/**
 * Who this shelf is, for as long as its records last. A device tells by it whether the server that answers is the one
 * that gave it its seat: another shelf may be started at the same address.
 */
@Component
public class ShelfId implements StartupTask {
    public static final String HEADER = "Yarrowmark-Shelf";
    private static final String SETTING = "shelf.id";

    private final Settings settings;
    private volatile String id = "";

    ShelfId(Settings settings) {
        this.settings = settings;
    }

    @Override
    public int getPhase() {
        return 5;
    }

    @Override
    public void start() {
        id = settings.get(SETTING).orElseGet(() -> {
            String made = UUID.randomUUID().toString();
            settings.put(SETTING, made);
            return made;
        });
    }

    public String id() {
        return id;
    }
}
