package yarrowmark.server.shelf.model;

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
public class Model {
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

    public Model(Maker maker, String name, DeviceClass deviceClass) {
        this.maker = maker;
        this.name = name;
        this.deviceClass = deviceClass;
    }

    /** What is said of it when it comes onto the shelf. @param currency ISO 4217 */
    public void offered(@Nullable BigDecimal at, @Nullable String currency, @Nullable LocalDate since) {
        this.price = at;
        this.currency = currency;
        this.released = since;
    }

    public Long id() {
        return id;
    }

    public void retire(@Nullable Instant at) {
        this.retiredAt = at;
    }

    public void photograph(@Nullable String hash) {
        this.photoHash = hash;
    }

    public String fullName() {
        return maker.name() + " " + name;
    }

    public Maker maker() {
        return maker;
    }

    public String name() {
        return name;
    }

    public DeviceClass deviceClass() {
        return deviceClass;
    }

    @Nullable
    public BigDecimal price() {
        return price;
    }

    @Nullable
    public String currency() {
        return currency;
    }

    @Nullable
    public LocalDate released() {
        return released;
    }

    @Nullable
    public BigDecimal width() {
        return width;
    }

    @Nullable
    public BigDecimal depth() {
        return depth;
    }

    @Nullable
    public BigDecimal height() {
        return height;
    }

    @Nullable
    public String photoHash() {
        return photoHash;
    }

    public boolean isRetired() {
        return retiredAt != null;
    }
}
