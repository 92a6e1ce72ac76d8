package yarrowmark.server.files;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Iterator;
import java.util.Locale;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import javax.imageio.ImageIO;
import javax.imageio.ImageReadParam;
import javax.imageio.ImageReader;
import javax.imageio.stream.ImageInputStream;
import net.coobird.thumbnailator.Thumbnails;
import net.coobird.thumbnailator.util.exif.ExifFilterUtils;
import net.coobird.thumbnailator.util.exif.ExifUtils;
import net.coobird.thumbnailator.util.exif.Orientation;
import org.jspecify.annotations.Nullable;
import yarrowmark.server.platform.Problem;

/**
 * Makes a picture out of an upload: it is decoded and drawn anew, smaller, so that what is kept is pixels and nothing
 * else. What cannot be decoded is refused, whatever its name or type says.
 */
final class Pictures {
    static final int LONGEST_SIDE = 1600;
    /** A mark is shown small, and is in every page. */
    private static final int MARK_SIDE = 192;

    private static final long MOST_PIXELS = 60_000_000;

    private static final int MOST_SECONDS = 20;
    /** Few: a large picture takes a processor and a quarter of a gigabyte while it is read. */
    private static final ExecutorService DECODERS = Executors.newFixedThreadPool(2, work -> {
        Thread thread = new Thread(work, "picture");
        thread.setDaemon(true);
        return thread;
    });

    private Pictures() {}

    /** What is drawn anew out of what was decoded. */
    private interface Drawing {
        byte[] of(BufferedImage upright) throws IOException;
    }

    /** @return a JPEG */
    static byte[] redrawn(byte[] upload) {
        return redrawn(upload, Pictures::photo);
    }

    /** @return a PNG that keeps what is transparent */
    static byte[] mark(byte[] upload) {
        return redrawn(upload, Pictures::small);
    }

    private static byte[] redrawn(byte[] upload, Drawing drawing) {
        if (upload.length == 0) {
            throw Problem.invalid("photo-empty", "The file is empty.");
        }
        Decoding decoding = new Decoding(upload, drawing);
        Future<byte[]> drawn = DECODERS.submit(decoding);
        try {
            return drawn.get(MOST_SECONDS, TimeUnit.SECONDS);
        } catch (TimeoutException e) {
            drawn.cancel(true);
            decoding.abort();
            throw Problem.invalid(
                    "photo-too-slow",
                    "The photo could not be read in " + MOST_SECONDS + " s. Save it anew, or smaller.");
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException(e);
        } catch (ExecutionException e) {
            if (e.getCause() instanceof Problem p) {
                throw p;
            }
            throw Problem.invalid(
                    "not-a-photo", "The file begins like a photo but cannot be read to its end. It may be damaged.");
        }
    }

    /** What a picture says of itself besides its dots is not read: a short text in it may be packed from gigabytes. */
    private static final class Decoding implements Callable<byte[]> {
        private final byte[] upload;
        private final Drawing drawing;
        private volatile @Nullable ImageReader reader;

        Decoding(byte[] upload, Drawing drawing) {
            this.upload = upload;
            this.drawing = drawing;
        }

        void abort() {
            ImageReader busy = reader;
            if (busy != null) {
                busy.abort();
            }
        }

        @Override
        public byte[] call() throws IOException {
            try (ImageInputStream in = ImageIO.createImageInputStream(new ByteArrayInputStream(upload))) {
                Iterator<ImageReader> readers = ImageIO.getImageReaders(in);
                if (!readers.hasNext()) {
                    throw Problem.invalid("not-a-photo", notAPhoto(upload));
                }
                ImageReader chosen = readers.next();
                reader = chosen;
                try {
                    chosen.setInput(in, true, true);
                    int width = chosen.getWidth(0);
                    int height = chosen.getHeight(0);
                    check(width, height);
                    ImageReadParam param = chosen.getDefaultReadParam();
                    // Twice as large as it is kept is fine enough to draw from.
                    int every = Math.max(1, Math.max(width, height) / (2 * LONGEST_SIDE));
                    param.setSourceSubsampling(every, every, 0, 0);
                    return drawing.of(ExifFilterUtils.getFilterForOrientation(orientation(chosen, upload))
                            .apply(chosen.read(0, param)));
                } finally {
                    chosen.dispose();
                }
            }
        }
    }

    private static void check(int width, int height) {
        long pixels = (long) width * height;
        if (pixels > MOST_PIXELS) {
            throw Problem.invalid(
                    "photo-too-large",
                    "The photo has " + pixels / 1_000_000 + " million pixels; " + MOST_PIXELS / 1_000_000
                            + " million are the most that are read.");
        }
        if (width < 16 || height < 16) {
            throw Problem.invalid("photo-too-small", "The photo is only " + width + " × " + height + " pixels.");
        }
    }

    /** How the camera was held: only JPEG says so, in parts that cannot be packed. */
    private static Orientation orientation(ImageReader decoder, byte[] upload) throws IOException {
        if (!decoder.getFormatName().equalsIgnoreCase("jpeg")) {
            return Orientation.TOP_LEFT;
        }
        ImageReader again = decoder.getOriginatingProvider().createReaderInstance();
        try (ImageInputStream in = ImageIO.createImageInputStream(new ByteArrayInputStream(upload))) {
            again.setInput(in, true, false);
            Orientation found = ExifUtils.getExifOrientation(again, 0);
            return found == null ? Orientation.TOP_LEFT : found;
        } catch (IOException | RuntimeException e) {
            // Whoever's note of the camera cannot be read has a picture that lies as it lies.
            return Orientation.TOP_LEFT;
        } finally {
            again.dispose();
        }
    }

    private static byte[] small(BufferedImage upright) throws IOException {
        double scale = Math.min(1, (double) MARK_SIDE / Math.max(upright.getWidth(), upright.getHeight()));
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        Thumbnails.of(upright)
                .scale(scale)
                .imageType(BufferedImage.TYPE_INT_ARGB)
                .outputFormat("png")
                .toOutputStream(out);
        return out.toByteArray();
    }

    private static byte[] photo(BufferedImage upright) throws IOException {
        double scale = Math.min(1, (double) LONGEST_SIDE / Math.max(upright.getWidth(), upright.getHeight()));
        BufferedImage small = Thumbnails.of(upright)
                .scale(scale)
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
