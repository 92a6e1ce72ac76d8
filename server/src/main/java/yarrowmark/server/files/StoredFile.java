package yarrowmark.server.files;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import java.time.Instant;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;

@Entity
class StoredFile {
    @Id
    @JdbcTypeCode(SqlTypes.CHAR)
    String hash;

    String contentType;
    byte[] bytes;
    Instant madeAt;
}
