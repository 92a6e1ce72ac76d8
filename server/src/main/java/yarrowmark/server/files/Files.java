package yarrowmark.server.files;

import jakarta.persistence.EntityManager;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Clock;
import java.util.HexFormat;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.server.platform.Problem;

/** Keeps each content once, under its SHA-256. */
@Service
public class Files {
    record Served(String contentType, byte[] bytes) { }

    private final EntityManager entities;
    private final Clock clock;

    Files(EntityManager entities, Clock clock) {
        this.entities = entities;
        this.clock = clock;
    }

    /** @return the hash of the picture as it is kept, which is not that of the upload */
    @Transactional
    public String keepPicture(byte[] upload) {
        byte[] bytes = Pictures.redrawn(upload);
        String hash = hash(bytes);
        if (entities.find(StoredFile.class, hash) == null) {
            StoredFile file = new StoredFile();
            file.hash = hash;
            file.contentType = "image/jpeg";
            file.bytes = bytes;
            file.madeAt = clock.instant();
            entities.persist(file);
        }
        return hash;
    }

    @Transactional(readOnly = true)
    Served file(String hash) {
        StoredFile file = entities.find(StoredFile.class, hash);
        if (file == null) {
            throw Problem.notFound("file", hash);
        }
        return new Served(file.contentType, file.bytes);
    }

    private static String hash(byte[] bytes) {
        try {
            return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(bytes));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java platform has SHA-256", e);
        }
    }
}
