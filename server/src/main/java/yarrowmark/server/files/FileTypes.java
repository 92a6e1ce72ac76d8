package yarrowmark.server.files;

import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.Map;
import yarrowmark.server.platform.Problem;

/**
 * What a file is, by how it begins and never by its name: pictures, text, and what is only ever saved. Text is text
 * whatever is written in it, so a page or a drawing is shown as its source and does nothing.
 */
public final class FileTypes {
    private static final Map<String, String> BEGINNINGS = new LinkedHashMap<>();

    static {
        BEGINNINGS.put("89504e470d0a1a0a", "image/png");
        BEGINNINGS.put("ffd8ff", "image/jpeg");
        BEGINNINGS.put("474946383761", "image/gif");
        BEGINNINGS.put("474946383961", "image/gif");
        BEGINNINGS.put("255044462d", "application/pdf");
        BEGINNINGS.put("504b0304", "application/zip");
        BEGINNINGS.put("1f8b", "application/gzip");
        BEGINNINGS.put("fd377a585a00", "application/x-xz");
    }

    private FileTypes() {}

    /** @throws Problem where it is none of those that are kept */
    public static String of(byte[] bytes) {
        if (bytes.length == 0) {
            throw Problem.invalid("file-empty", "The file is empty.");
        }
        String start = HexFormat.of().formatHex(bytes, 0, Math.min(16, bytes.length));
        for (Map.Entry<String, String> known : BEGINNINGS.entrySet()) {
            if (start.startsWith(known.getKey())) {
                return known.getValue();
            }
        }
        if (start.startsWith("52494646") && start.startsWith("57454250", 16)) {
            return "image/webp";
        }
        if (isText(bytes)) {
            return "text/plain;charset=utf-8";
        }
        throw Problem.invalid(
                "file-type",
                "This kind of file is not kept. Photos (PNG, JPEG, GIF, WebP), text and logs in UTF-8, PDF, ZIP, gzip and xz are.");
    }

    private static boolean isText(byte[] bytes) {
        for (byte b : bytes) {
            if (b >= 0 && b < 0x20 && b != '\n' && b != '\r' && b != '\t' && b != 0x0c && b != 0x1b && b != 0x08) {
                return false;
            }
        }
        try {
            StandardCharsets.UTF_8.newDecoder().decode(ByteBuffer.wrap(bytes));
            return true;
        } catch (CharacterCodingException e) {
            return false;
        }
    }
}
