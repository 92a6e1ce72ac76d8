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
import java.time.LocalDate;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;

@Entity
class Model {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;
    @ManyToOne(fetch = FetchType.LAZY, optional = false)
    private Maker maker;
    private String name;
    @Enumerated(EnumType.STRING)
    @JdbcTypeCode(SqlTypes.VARCHAR)
    private DeviceClass deviceClass;
    private BigDecimal price;
    @JdbcTypeCode(SqlTypes.CHAR)
    private String currency;
    private LocalDate released;
    @Version
    private int version;

    protected Model() {
    }

    Model(Maker maker, String name, DeviceClass deviceClass) {
        this.maker = maker;
        this.name = name;
        this.deviceClass = deviceClass;
    }

    void describe(Maker newMaker, String newName, DeviceClass newClass) {
        this.maker = newMaker;
        this.name = newName;
        this.deviceClass = newClass;
    }

    void sell(BigDecimal newPrice, String newCurrency, LocalDate newReleased) {
        this.price = newPrice;
        this.currency = newCurrency;
        this.released = newReleased;
    }

    Long id() {
        return id;
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

    int version() {
        return version;
    }
}
