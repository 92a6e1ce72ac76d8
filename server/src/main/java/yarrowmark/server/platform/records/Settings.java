package yarrowmark.server.platform.records;

import jakarta.persistence.Entity;
import jakarta.persistence.EntityManager;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.util.Optional;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Small lasting settings of this shelf, by name. */
@Service
public class Settings {
    @Entity(name = "Setting")
    @Table(name = "app_setting")
    static class Setting {
        @Id
        private String name;

        @JdbcTypeCode(SqlTypes.LONG32VARCHAR)
        private String value;
    }

    private final EntityManager entities;

    Settings(EntityManager entities) {
        this.entities = entities;
    }

    @Transactional(readOnly = true)
    public Optional<String> get(String name) {
        return Optional.ofNullable(entities.find(Setting.class, name)).map(s -> s.value);
    }

    @Transactional
    public void put(String name, String value) {
        Setting setting = new Setting();
        setting.name = name;
        setting.value = value;
        entities.merge(setting);
    }
}
