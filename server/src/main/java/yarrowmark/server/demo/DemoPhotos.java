package yarrowmark.server.demo;

import java.awt.BasicStroke;
import java.awt.Color;
import java.awt.GradientPaint;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.geom.Ellipse2D;
import java.awt.geom.Path2D;
import java.awt.geom.RoundRectangle2D;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.Random;
import javax.imageio.ImageIO;

/** Two pictures of the demo's write-ups, drawn here so that nobody's photo is in the program. */
final class DemoPhotos {
    private static final int WIDTH = 1440;
    private static final int HEIGHT = 810;

    private DemoPhotos() {}

    /** A marsh at dawn with a laptop on a field table. */
    static byte[] marsh() {
        BufferedImage image = new BufferedImage(WIDTH, HEIGHT, BufferedImage.TYPE_INT_RGB);
        Graphics2D g = pen(image);
        g.setPaint(new GradientPaint(0, 0, new Color(0x8fa3a6), 0, 460, new Color(0xf2d9b0)));
        g.fillRect(0, 0, WIDTH, HEIGHT);
        g.setColor(new Color(0xf7ecd0));
        g.fill(new Ellipse2D.Double(1010, 300, 130, 130));
        hills(g, 430, 40, new Color(0x7f8f80), 3);
        hills(g, 480, 26, new Color(0x5f7263), 5);
        g.setPaint(new GradientPaint(0, 500, new Color(0xc9b98f), 0, HEIGHT, new Color(0x4a5a46)));
        g.fillRect(0, 510, WIDTH, HEIGHT - 510);
        reeds(g, new Random(4), 260, new Color(0x3c4a38));
        table(g, 430, 560, 520);
        laptop(g, 600, 400);
        g.dispose();
        return png(image);
    }

    /** A dyke in the rain with three tablets on a plank. */
    static byte[] rain() {
        BufferedImage image = new BufferedImage(WIDTH, HEIGHT, BufferedImage.TYPE_INT_RGB);
        Graphics2D g = pen(image);
        g.setPaint(new GradientPaint(0, 0, new Color(0x6f7d82), 0, 520, new Color(0xaeb7b0)));
        g.fillRect(0, 0, WIDTH, HEIGHT);
        hills(g, 470, 30, new Color(0x66756a), 4);
        g.setPaint(new GradientPaint(0, 480, new Color(0x76875f), 0, HEIGHT, new Color(0x3f4f38)));
        g.fillRect(0, 500, WIDTH, HEIGHT - 500);
        g.setColor(new Color(0x8a7350));
        g.fill(new RoundRectangle2D.Double(220, 590, 1000, 34, 8, 8));
        for (int i = 0; i < 3; i++) {
            tablet(g, 320 + i * 300, 440 + i * 12, 190 - i * 22, 150 - i * 14);
        }
        g.setColor(new Color(255, 255, 255, 60));
        g.setStroke(new BasicStroke(1.6f));
        Random random = new Random(9);
        for (int i = 0; i < 900; i++) {
            int x = random.nextInt(WIDTH + 100);
            int y = random.nextInt(HEIGHT);
            int fall = 18 + random.nextInt(26);
            g.drawLine(x, y, x - fall / 4, y + fall);
        }
        g.dispose();
        return png(image);
    }

    private static Graphics2D pen(BufferedImage image) {
        Graphics2D g = image.createGraphics();
        g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
        return g;
    }

    private static void hills(Graphics2D g, int y, int height, Color colour, int waves) {
        Path2D path = new Path2D.Double();
        path.moveTo(0, HEIGHT);
        for (int x = 0; x <= WIDTH; x += 12) {
            double at = 2 * Math.PI * waves * x / WIDTH;
            path.lineTo(x, y - height * (0.6 + 0.4 * Math.sin(at) * Math.cos(at / 3)));
        }
        path.lineTo(WIDTH, HEIGHT);
        path.closePath();
        g.setColor(colour);
        g.fill(path);
    }

    private static void reeds(Graphics2D g, Random random, int count, Color colour) {
        g.setColor(colour);
        for (int i = 0; i < count; i++) {
            int x = random.nextInt(WIDTH);
            int y = 540 + random.nextInt(250);
            int height = 60 + random.nextInt(110);
            g.setStroke(new BasicStroke(2 + random.nextInt(2)));
            Path2D stem = new Path2D.Double();
            stem.moveTo(x, y);
            stem.quadTo(x + 4, y - height / 2.0, x + 10 + random.nextInt(10), y - height);
            g.draw(stem);
            g.fill(new Ellipse2D.Double(x + 8, y - height - 14, 7, 24));
        }
    }

    private static void table(Graphics2D g, int x, int y, int width) {
        g.setColor(new Color(0x6d5638));
        g.fill(new RoundRectangle2D.Double(x, y, width, 22, 6, 6));
        g.setStroke(new BasicStroke(12));
        g.drawLine(x + 60, y + 20, x + 20, y + 190);
        g.drawLine(x + width - 60, y + 20, x + width - 20, y + 190);
    }

    private static void laptop(Graphics2D g, int x, int y) {
        g.setColor(new Color(0x2a3932));
        g.fill(new RoundRectangle2D.Double(x, y, 200, 132, 10, 10));
        g.setPaint(new GradientPaint(x, y, new Color(0xe3ece2), x + 200f, y + 130f, new Color(0x86c29d)));
        g.fill(new RoundRectangle2D.Double(x + 10, y + 10, 180, 112, 4, 4));
        g.setColor(new Color(0x4a5560));
        Path2D base = new Path2D.Double();
        base.moveTo(x - 4, y + 132);
        base.lineTo(x + 204, y + 132);
        base.lineTo(x + 232, y + 160);
        base.lineTo(x - 32, y + 160);
        base.closePath();
        g.fill(base);
    }

    private static void tablet(Graphics2D g, int x, int y, int width, int height) {
        g.setColor(new Color(0x1d2a24));
        g.fill(new RoundRectangle2D.Double(x, y, width, height, 14, 14));
        g.setPaint(new GradientPaint(x, y, new Color(0xf0efe4), x, y + (float) height, new Color(0x9fb3a5)));
        g.fill(new RoundRectangle2D.Double(x + 9, y + 9, width - 18, height - 18, 5, 5));
        g.setColor(new Color(0x2f6247));
        for (int line = 0; line < 5; line++) {
            g.fillRect(x + 22, y + 24 + line * 19, (width - 60) * (5 - line) / 6, 6);
        }
    }

    private static byte[] png(BufferedImage image) {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try {
            ImageIO.write(image, "png", bytes);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return bytes.toByteArray();
    }
}
