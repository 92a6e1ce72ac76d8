package yarrowmark.server.shelf;

import static yarrowmark.server.platform.Require.require;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.StartupTask;
import yarrowmark.server.platform.history.ChangeLog;
import yarrowmark.server.platform.records.Settings;
import yarrowmark.server.shelf.model.DeviceClass;

/** What to do before the first run, for each class of device. */
@Service
public class Checklists implements StartupTask {
    static final int MOST_ITEMS = 40;
    private static final String MADE = "checklists.made";
    private static final List<String> FOR_ALL = List.of(
            "Updates are finished and none is waiting",
            "Restarted since, and left alone for five minutes",
            "The power mode is the one in the configuration",
            "Plugged in, or on battery on purpose",
            "A fresh browser profile without extensions",
            "Nothing else is open",
            "Nothing records the screen");
    private static final List<String> FOR_HANDS = List.of(
            "Updates are finished and none is waiting",
            "Restarted since, and left alone for five minutes",
            "Battery saver is off",
            "The screen stays on for longer than the round",
            "Case and cover are off",
            "Nothing else is open",
            "Nothing records the screen");

    public record Checklist(DeviceClass deviceClass, List<String> items) {}

    private final JdbcTemplate jdbc;
    private final Settings settings;
    private final ChangeLog changes;

    Checklists(JdbcTemplate jdbc, Settings settings, ChangeLog changes) {
        this.jdbc = jdbc;
        this.settings = settings;
        this.changes = changes;
    }

    @Override
    public int getPhase() {
        return 15;
    }

    /** Every shelf begins with lists that can be used as they are. An emptied list stays empty. */
    @Override
    @Transactional
    public void start() {
        if (settings.get(MADE).isEmpty()) {
            for (DeviceClass c : DeviceClass.values()) {
                store(c, c == DeviceClass.PHONE || c == DeviceClass.TABLET ? FOR_HANDS : FOR_ALL);
            }
            settings.put(MADE, "1");
        }
    }

    @Transactional(readOnly = true)
    public List<Checklist> all() {
        Map<DeviceClass, List<String>> lists = new EnumMap<>(DeviceClass.class);
        Arrays.stream(DeviceClass.values()).forEach(c -> lists.put(c, new ArrayList<>()));
        jdbc.query("select device_class, text from checklist_item order by device_class, position", r -> {
            require(lists, DeviceClass.valueOf(r.getString(1))).add(r.getString(2));
        });
        return lists.entrySet().stream()
                .map(e -> new Checklist(e.getKey(), List.copyOf(e.getValue())))
                .toList();
    }

    @Transactional(readOnly = true)
    public List<String> items(DeviceClass deviceClass) {
        return jdbc.queryForList(
                "select text from checklist_item where device_class = ? order by position",
                String.class,
                deviceClass.name());
    }

    /** @param seen the items the person saw; others now mean that somebody else changed them */
    @Transactional
    public void change(DeviceClass deviceClass, List<String> seen, List<String> items, String person) {
        jdbc.queryForList("select position from checklist_item where device_class = ? for update", deviceClass.name());
        List<String> now = items(deviceClass);
        if (!now.equals(seen)) {
            throw Problem.conflict(
                            "changed-meanwhile",
                            "Somebody else changed this checklist since you opened it. Yours is still here: look at theirs, then save again.")
                    .with("now", now);
        }
        List<String> wanted =
                items.stream().map(String::strip).filter(i -> !i.isEmpty()).toList();
        changes.note(
                person, "checklist", deviceClass.ordinal(), "items", String.join("\n", now), String.join("\n", wanted));
        store(deviceClass, wanted);
    }

    private void store(DeviceClass deviceClass, List<String> items) {
        jdbc.update("delete from checklist_item where device_class = ?", deviceClass.name());
        for (int i = 0; i < items.size(); i++) {
            jdbc.update(
                    "insert into checklist_item (device_class, position, text) values (?, ?, ?)",
                    deviceClass.name(),
                    i,
                    items.get(i));
        }
    }
}
