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

    BigDecimal price;
    /** ISO 4217. */
    @JdbcTypeCode(SqlTypes.CHAR)
    String currency;

    LocalDate priceOn;
    String priceSource;
    LocalDate released;
    /** Outer sides in m. */
    BigDecimal width;

    BigDecimal depth;
    BigDecimal height;
    /** In g. */
    BigDecimal weight;
    /** Capacity in Wh. */
    BigDecimal battery;

    String screen;
    String ports;
    String wireless;
    String notes;

    @Enumerated(EnumType.STRING)
    @JdbcTypeCode(SqlTypes.VARCHAR)
    ReviewState review;
    /** The model that this one follows in its maker's line. */
    Long predecessorId;

    @JdbcTypeCode(SqlTypes.CHAR)
    String photoHash;

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

    void retire(Instant at) {
        this.retiredAt = at;
    }

    void photograph(String hash) {
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

    BigDecimal price() {
        return price;
    }

    String currency() {
        return currency;
    }

    LocalDate released() {
        return released;
    }

    BigDecimal width() {
        return width;
    }

    BigDecimal depth() {
        return depth;
    }

    BigDecimal height() {
        return height;
    }

    String photoHash() {
        return photoHash;
    }

    boolean isRetired() {
        return retiredAt != null;
    }
}
