package yarrowmark.server.shelf.model;

import java.math.BigDecimal;
import java.time.LocalDate;
import org.jspecify.annotations.Nullable;

/**
 * A model in a list.
 *
 * @param price    in currency, an ISO 4217 code
 * @param released as a date
 * @param photo    hash of its photo
 */
public record ModelRow(
        long id,
        String maker,
        String name,
        DeviceClass deviceClass,
        @Nullable BigDecimal price,
        @Nullable String currency,
        @Nullable LocalDate released,
        int configurations,
        boolean retired,
        @Nullable String photo) {
    public static ModelRow of(Model m, int configurations) {
        return new ModelRow(
                m.id(),
                m.maker().name(),
                m.name(),
                m.deviceClass(),
                m.price(),
                m.currency(),
                m.released(),
                configurations,
                m.isRetired(),
                m.photoHash());
    }
}
