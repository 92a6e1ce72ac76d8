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
    public record Served(String contentType, byte[] bytes) {}

    private final EntityManager entities;
    private final Clock clock;

    Files(EntityManager entities, Clock clock) {
        this.entities = entities;
        this.clock = clock;
    }

    /** @return the hash of the picture as it is kept, which is not that of the upload */
    @Transactional
    public String keepPicture(byte[] upload) {
        return keep(Pictures.redrawn(upload), "image/jpeg");
    }

    /** @return a small picture as PNG, drawn anew: for what is shown within a page and not kept by itself */
    public static byte[] mark(byte[] upload) {
        return Pictures.mark(upload);
    }

    /** @return the hash of a file that is kept as it is, once its type is known to be one that only shows something */
    @Transactional
    public String keepFile(byte[] upload) {
        return keep(upload, FileTypes.of(upload));
    }

    private String keep(byte[] bytes, String contentType) {
        String hash = hash(bytes);
        if (entities.find(StoredFile.class, hash) == null) {
            StoredFile file = new StoredFile();
            file.hash = hash;
            file.contentType = contentType;
            file.bytes = bytes;
            file.madeAt = clock.instant();
            entities.persist(file);
        }
        return hash;
    }

    @Transactional(readOnly = true)
    public Served file(String hash) {
        StoredFile file = entities.find(StoredFile.class, hash);
        if (file == null) {
            throw Problem.notFound("file", hash);
        }
        return new Served(file.contentType, file.bytes);
    }

    @Transactional(readOnly = true)
    public String contentType(String hash) {
        return entities.createQuery("select f.contentType from StoredFile f where f.hash = :hash", String.class)
                .setParameter("hash", hash)
                .getSingleResult();
    }

    private static String hash(byte[] bytes) {
        try {
            return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(bytes));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java platform has SHA-256", e);
        }
    }
}
