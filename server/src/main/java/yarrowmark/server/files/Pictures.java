package yarrowmark.server.files;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Iterator;
import java.util.Locale;
import javax.imageio.ImageIO;
import javax.imageio.ImageReader;
import javax.imageio.stream.ImageInputStream;
import net.coobird.thumbnailator.Thumbnails;
import yarrowmark.server.platform.Problem;

/**
 * Makes a picture out of an upload: it is decoded and drawn anew, smaller, so that what is kept is pixels and nothing
 * else. What cannot be decoded is refused, whatever its name or type says.
 */
final class Pictures {
    static final int LONGEST_SIDE = 1600;
    private static final long MOST_PIXELS = 60_000_000;

    private Pictures() {}

    /** @return a JPEG */
    static byte[] redrawn(byte[] upload) {
        if (upload.length == 0) {
            throw Problem.invalid("photo-empty", "The file is empty.");
        }
        try (ImageInputStream in = ImageIO.createImageInputStream(new ByteArrayInputStream(upload))) {
            Iterator<ImageReader> readers = ImageIO.getImageReaders(in);
            if (!readers.hasNext()) {
                throw Problem.invalid("not-a-photo", notAPhoto(upload));
            }
            ImageReader reader = readers.next();
            try {
                reader.setInput(in, true, true);
                long pixels = (long) reader.getWidth(0) * reader.getHeight(0);
                if (pixels > MOST_PIXELS) {
                    throw Problem.invalid(
                            "photo-too-large",
                            "The photo has " + pixels / 1_000_000 + " million pixels; " + MOST_PIXELS / 1_000_000
                                    + " million are the most that are read.");
                }
                if (reader.getWidth(0) < 16 || reader.getHeight(0) < 16) {
                    throw Problem.invalid(
                            "photo-too-small",
                            "The photo is only " + reader.getWidth(0) + " × " + reader.getHeight(0) + " pixels.");
                }
            } finally {
                reader.dispose();
            }
            return drawn(upload);
        } catch (IOException | RuntimeException e) {
            if (e instanceof Problem p) {
                throw p;
            }
            throw Problem.invalid(
                    "not-a-photo", "The file begins like a photo but cannot be read to its end. It may be damaged.");
        }
    }

    private static byte[] drawn(byte[] upload) throws IOException {
        // Turned upright by what the camera noted; that note itself is not kept.
        BufferedImage small = Thumbnails.of(new ByteArrayInputStream(upload))
                .size(LONGEST_SIDE, LONGEST_SIDE)
                .imageType(BufferedImage.TYPE_INT_RGB)
                .asBufferedImage();
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        Thumbnails.of(small).scale(1).outputFormat("jpg").outputQuality(0.86).toOutputStream(out);
        return out.toByteArray();
    }

    private static String notAPhoto(byte[] upload) {
        String start =
                new String(upload, 0, Math.min(upload.length, 400), StandardCharsets.UTF_8).toLowerCase(Locale.ROOT);
        if (start.contains("<svg")) {
            return "Drawings in SVG may hold programs and are not taken as photos. Save it as PNG or JPEG.";
        }
        return "The file is not a photo that can be read here. PNG, JPEG, GIF and BMP can.";
    }
}
