package yarrowmark.server.files;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.zip.CRC32;
import java.util.zip.DeflaterOutputStream;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import yarrowmark.server.platform.Problem;

/** Pictures as they come, and as somebody might make them to do harm. */
class PicturesTest {
    private static final int SIGNATURE_AND_HEADER = 33;

    /** Left half red, right half blue. */
    private static byte[] image(String format, int width, int height) throws IOException {
        BufferedImage image = new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB);
        Graphics2D g = image.createGraphics();
        g.setColor(Color.RED);
        g.fillRect(0, 0, width / 2, height);
        g.setColor(Color.BLUE);
        g.fillRect(width / 2, 0, width - width / 2, height);
        g.dispose();
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        assertThat(ImageIO.write(image, format, out)).isTrue();
        return out.toByteArray();
    }

    private static BufferedImage redrawn(byte[] upload) throws IOException {
        return ImageIO.read(new ByteArrayInputStream(Pictures.redrawn(upload)));
    }

    private static byte[] chunk(String type, byte[] data) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        DataOutputStream to = new DataOutputStream(out);
        to.writeInt(data.length);
        byte[] named = ByteBuffer.allocate(4 + data.length)
                .put(type.getBytes(StandardCharsets.US_ASCII))
                .put(data)
                .array();
        to.write(named);
        CRC32 sum = new CRC32();
        sum.update(named);
        to.writeInt((int) sum.getValue());
        return out.toByteArray();
    }

    private static byte[] with(byte[] png, byte[] chunk) {
        return ByteBuffer.allocate(png.length + chunk.length)
                .put(png, 0, SIGNATURE_AND_HEADER)
                .put(chunk)
                .put(png, SIGNATURE_AND_HEADER, png.length - SIGNATURE_AND_HEADER)
                .array();
    }

    @ParameterizedTest
    @ValueSource(strings = {"png", "jpg", "gif", "bmp"})
    void whatIsLargeIsMadeSmallerAndKeepsItsShape(String format) throws IOException {
        BufferedImage small = redrawn(image(format, 2_000, 1_000));
        assertThat(small.getWidth()).isEqualTo(Pictures.LONGEST_SIDE);
        assertThat(small.getHeight()).isEqualTo(Pictures.LONGEST_SIDE / 2);
        assertThat(new Color(small.getRGB(200, 400)).getRed()).isGreaterThan(200);
        assertThat(new Color(small.getRGB(1_400, 400)).getBlue()).isGreaterThan(200);
        assertThat(redrawn(image(format, 40, 30)).getWidth())
                .as("what is small stays")
                .isEqualTo(40);
    }

    /** 300 MB of one letter, packed into a third of a megabyte. */
    @Test
    void aPackedTextInAPictureIsNotUnpacked() throws IOException {
        ByteArrayOutputStream text = new ByteArrayOutputStream();
        text.write("Comment\0\0".getBytes(StandardCharsets.US_ASCII));
        try (DeflaterOutputStream packed = new DeflaterOutputStream(text)) {
            byte[] part = new byte[1_000_000];
            Arrays.fill(part, (byte) 'a');
            for (int i = 0; i < 300; i++) {
                packed.write(part);
            }
        }
        byte[] png = with(image("png", 64, 64), chunk("zTXt", text.toByteArray()));
        Runtime machine = Runtime.getRuntime();
        machine.gc();
        long before = machine.totalMemory() - machine.freeMemory();
        assertThat(redrawn(png).getWidth()).isEqualTo(64);
        assertThat(machine.totalMemory() - machine.freeMemory() - before)
                .as("bytes that it took")
                .isLessThan(150_000_000);
    }

    @Test
    void aHeaderThatPromisesTooMuchIsRefusedBeforeAnythingIsRead() throws IOException {
        byte[] png = image("png", 64, 64);
        byte[] header = ByteBuffer.allocate(13)
                .putInt(60_000)
                .putInt(60_000)
                .put(png, 24, 5)
                .array();
        byte[] huge = ByteBuffer.allocate(png.length)
                .put(png, 0, 8)
                .put(chunk("IHDR", header))
                .put(png, SIGNATURE_AND_HEADER, png.length - SIGNATURE_AND_HEADER)
                .array();
        assertThatThrownBy(() -> Pictures.redrawn(huge))
                .isInstanceOf(Problem.class)
                .hasMessageContaining("million pixels");
    }

    @Test
    void whatIsCutOffOrNoPictureIsSaid() throws IOException {
        byte[] jpg = image("jpg", 640, 480);
        byte[] gif = image("gif", 64, 64);
        assertThatThrownBy(() -> Pictures.redrawn(Arrays.copyOf(gif, 40))).isInstanceOf(Problem.class);
        assertThatThrownBy(() -> Pictures.redrawn("<svg onload='x'/>".getBytes(StandardCharsets.UTF_8)))
                .isInstanceOf(Problem.class)
                .hasMessageContaining("SVG");
        assertThatThrownBy(() -> Pictures.redrawn(new byte[0])).isInstanceOf(Problem.class);
        assertThatThrownBy(() -> Pictures.redrawn(Arrays.copyOf(jpg, 12))).isInstanceOf(Problem.class);
        assertThatThrownBy(() -> Pictures.redrawn(image("png", 8, 8)))
                .isInstanceOf(Problem.class)
                .hasMessageContaining("8 × 8");
    }
}
