package yarrowmark.server.site;

import java.awt.AWTError;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.concurrent.locks.ReentrantLock;
import javax.imageio.IIOImage;
import javax.imageio.ImageIO;
import javax.imageio.ImageWriteParam;
import javax.imageio.ImageWriter;
import javax.imageio.stream.ImageOutputStream;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Service;
import yarrowmark.server.files.Files;
import yarrowmark.server.writeup.Frozen;
import yarrowmark.server.writeup.PageStyle;
import yarrowmark.server.writeup.PublishedEditions;

/** Pictures of editions: drawn when they are first asked for, one at a time, and kept. */
@Service
class EditionPictures {
    private static final Logger LOG = LoggerFactory.getLogger(EditionPictures.class);

    /** As they are asked for: JPEG, as a photo would take ten times as long and as much in dots that lose nothing. */
    enum Shape {
        /** With the title beside it. */
        SHARE("share.jpg", 1200, 630, 0.9f),
        LEAD("lead.jpg", 960, 480, 0.72f),
        SMALL("small.jpg", 360, 216, 0.65f);

        final String file;
        final int width;
        final int height;
        final float quality;

        Shape(String file, int width, int height, float quality) {
            this.file = file;
            this.width = width;
            this.height = height;
            this.quality = quality;
        }
    }

    private final PublishedEditions editions;
    private final Files files;
    private final PageStyle style;
    private final JdbcTemplate jdbc;
    private final ReentrantLock drawing = new ReentrantLock();
    private @Nullable PictureFonts fonts;

    EditionPictures(PublishedEditions editions, Files files, PageStyle style, JdbcTemplate jdbc) {
        this.editions = editions;
        this.files = files;
        this.style = style;
        this.jdbc = jdbc;
    }

    /** Empty where there is no such edition, or where this machine cannot draw. */
    Optional<byte[]> of(String key, int number, Shape shape) {
        Optional<PublishedEditions.Listed> edition = editions.described(key, number);
        if (edition.isEmpty()) {
            return Optional.empty();
        }
        long id = edition.get().id();
        Optional<byte[]> kept = kept(id, shape);
        if (kept.isPresent()) {
            return kept;
        }
        drawing.lock();
        try {
            return kept(id, shape).or(() -> editions.whole(key, number).flatMap(e -> drawn(id, e, shape)));
        } finally {
            drawing.unlock();
        }
    }

    private Optional<byte[]> kept(long id, Shape shape) {
        return jdbc
                .queryForList(
                        "select bytes from edition_picture where edition_id = ? and shape = ?",
                        byte[].class,
                        id,
                        shape.name())
                .stream()
                .findFirst();
    }

    private Optional<byte[]> drawn(long id, Frozen edition, Shape shape) {
        try {
            byte[] bytes = draw(edition, shape);
            jdbc.update(
                    "insert ignore into edition_picture (edition_id, shape, bytes) values (?, ?, ?)",
                    id,
                    shape.name(),
                    bytes);
            return Optional.of(bytes);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (LinkageError | InternalError | AWTError e) {
            // A Java without what draws words. Pages do without the picture.
            LOG.warn("Pictures for shared links cannot be drawn on this machine: {}", e.toString());
            return Optional.empty();
        }
    }

    /** Anew, whatever is kept. */
    byte[] draw(Frozen edition, Shape shape) throws IOException {
        if (fonts == null) {
            fonts = new PictureFonts();
        }
        EditionPicture picture = new EditionPicture(fonts);
        EditionPicture.Of of = contents(edition, shape);
        return jpeg(
                shape == Shape.SHARE
                        ? picture.card(of, shape.width, shape.height)
                        : picture.alone(of, shape.width, shape.height),
                shape.quality);
    }

    private EditionPicture.Of contents(Frozen edition, Shape shape) throws IOException {
        BufferedImage photo = null;
        String svg = null;
        String hash = edition.photo();
        if (hash != null) {
            photo = ImageIO.read(new ByteArrayInputStream(files.file(hash).bytes()));
        } else {
            svg = edition.pieces().stream()
                    .map(Frozen.FrozenPiece::shown)
                    .filter(Objects::nonNull)
                    .filter(s -> s.svg() != null)
                    .findFirst()
                    // Of what is beside a title, or small, only the form for a phone can be read.
                    .map(s -> s.narrow() != null && shape != Shape.LEAD ? s.narrow() : s.svg())
                    .map(drawn -> style.resolved(drawn, edition.accent()))
                    .orElse(null);
        }
        return new EditionPicture.Of(edition.title(), edition.subtitle(), edition.lab(), edition.accent(), photo, svg);
    }

    private static byte[] jpeg(BufferedImage image, float quality) throws IOException {
        ImageWriter writer = ImageIO.getImageWritersByFormatName("jpeg").next();
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (ImageOutputStream out = ImageIO.createImageOutputStream(bytes)) {
            writer.setOutput(out);
            ImageWriteParam how = writer.getDefaultWriteParam();
            how.setCompressionMode(ImageWriteParam.MODE_EXPLICIT);
            how.setCompressionQuality(quality);
            writer.write(null, new IIOImage(image, List.of(), null), how);
        } finally {
            writer.dispose();
        }
        return bytes.toByteArray();
    }
}
