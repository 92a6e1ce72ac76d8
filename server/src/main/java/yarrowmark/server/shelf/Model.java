package yarrowmark.server.shelf;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.FetchType;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.ManyToOne;
import jakarta.persistence.Version;
import java.math.BigDecimal;
import java.time.Instant;
import java.time.LocalDate;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;
import org.jspecify.annotations.Nullable;

/** A product a reader can buy. What people may change of it is listed in {@link ModelFields}. */
@Entity
class Model {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    @ManyToOne(fetch = FetchType.LAZY, optional = false)
    Maker maker;

    String name;

    @Enumerated(EnumType.STRING)
    @JdbcTypeCode(SqlTypes.VARCHAR)
    DeviceClass deviceClass;

    @Nullable
    BigDecimal price;
    /** ISO 4217. */
    @JdbcTypeCode(SqlTypes.CHAR)
    @Nullable
    String currency;

    @Nullable
    LocalDate priceOn;

    @Nullable
    String priceSource;

    @Nullable
    LocalDate released;
    /** Outer sides in m. */
    @Nullable
    BigDecimal width;

    @Nullable
    BigDecimal depth;

    @Nullable
    BigDecimal height;
    /** In g. */
    @Nullable
    BigDecimal weight;
    /** Capacity in Wh. */
    @Nullable
    BigDecimal battery;

    @Nullable
    String screen;

    @Nullable
    String ports;

    @Nullable
    String wireless;

    @Nullable
    String notes;

    @Enumerated(EnumType.STRING)
    @JdbcTypeCode(SqlTypes.VARCHAR)
    @Nullable
    ReviewState review;
    /** The model that this one follows in its maker's line. */
    @Nullable
    Long predecessorId;

    @JdbcTypeCode(SqlTypes.CHAR)
    @Nullable
    String photoHash;

    @Nullable
    Instant retiredAt;

    @Version
    private int version;

    protected Model() {}

    Model(Maker maker, String name, DeviceClass deviceClass) {
        this.maker = maker;
        this.name = name;
        this.deviceClass = deviceClass;
    }

    Long id() {
        return id;
    }

    void retire(@Nullable Instant at) {
        this.retiredAt = at;
    }

    void photograph(@Nullable String hash) {
        this.photoHash = hash;
    }

    String fullName() {
        return maker.name() + " " + name;
    }

    Maker maker() {
        return maker;
    }

    String name() {
        return name;
    }

    DeviceClass deviceClass() {
        return deviceClass;
    }

    @Nullable
    BigDecimal price() {
        return price;
    }

    @Nullable
    String currency() {
        return currency;
    }

    @Nullable
    LocalDate released() {
        return released;
    }

    @Nullable
    BigDecimal width() {
        return width;
    }

    @Nullable
    BigDecimal depth() {
        return depth;
    }

    @Nullable
    BigDecimal height() {
        return height;
    }

    @Nullable
    String photoHash() {
        return photoHash;
    }

    boolean isRetired() {
        return retiredAt != null;
    }
}
