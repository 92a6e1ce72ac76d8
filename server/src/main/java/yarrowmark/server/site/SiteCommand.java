package yarrowmark.server.site;

import java.io.IOException;
import java.io.InputStream;
import java.io.PrintStream;
import java.net.InetAddress;
import java.net.Socket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.attribute.BasicFileAttributes;
import java.security.GeneralSecurityException;
import java.security.cert.X509Certificate;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import javax.net.ssl.SSLContext;
import javax.net.ssl.SSLEngine;
import javax.net.ssl.TrustManager;
import javax.net.ssl.X509ExtendedTrustManager;

/** bin/site: takes the public side from the program that runs on this machine and puts it into a folder, all of it or nothing. */
public final class SiteCommand {
    /** Says that a folder is ours, so that it may be replaced. */
    static final String MARK = ".yarrowmark-site";

    private SiteCommand() {}

    public static boolean isAskedFor(String[] args) {
        return args.length == 3 && args[0].equals("site");
    }

    /** @param args "site", the address of the file, the folder. @return 0, or 1 with the reason in the last line */
    public static int run(PrintStream out, String[] args) {
        try {
            int files = taken(URI.create(args[1]), Path.of(args[2]).toAbsolutePath());
            out.println(files + " files");
            return 0;
        } catch (IOException | GeneralSecurityException e) {
            out.println(e.getMessage());
            return 1;
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return 1;
        }
    }

    private static int taken(URI address, Path folder)
            throws IOException, GeneralSecurityException, InterruptedException {
        if (Files.exists(folder) && !isOurs(folder)) {
            throw new IOException(
                    folder
                            + " has other files in it. Say a folder that is not there yet, or one that was made by this command");
        }
        if (!InetAddress.getByName(address.getHost()).isLoopbackAddress()) {
            throw new IOException("the folder is made on the machine that the program runs on");
        }
        HttpClient client = HttpClient.newBuilder().sslContext(trusting()).build();
        HttpResponse<InputStream> answer =
                client.send(HttpRequest.newBuilder(address).build(), HttpResponse.BodyHandlers.ofInputStream());
        if (answer.statusCode() != 200) {
            throw new IOException("the program did not give it (" + answer.statusCode() + "): "
                    + new String(answer.body().readNBytes(500), java.nio.charset.StandardCharsets.UTF_8));
        }
        Path made = Files.createTempDirectory(folder.getParent(), "yarrowmark-site");
        try {
            int files = unpacked(answer.body(), made);
            Files.createFile(made.resolve(MARK));
            Path before = made.resolveSibling(made.getFileName() + "-before");
            if (Files.exists(folder)) {
                Files.move(folder, before);
            }
            Files.move(made, folder);
            remove(before);
            return files;
        } finally {
            remove(made);
        }
    }

    private static boolean isOurs(Path folder) throws IOException {
        if (Files.exists(folder.resolve(MARK))) {
            return true;
        }
        try (var inside = Files.list(folder)) {
            return inside.findAny().isEmpty();
        }
    }

    private static int unpacked(InputStream from, Path into) throws IOException {
        int files = 0;
        try (ZipInputStream zip = new ZipInputStream(from)) {
            for (ZipEntry entry = zip.getNextEntry(); entry != null; entry = zip.getNextEntry()) {
                Path file = into.resolve(entry.getName()).normalize();
                if (!file.startsWith(into)) {
                    throw new IOException("a file would lie outside of the folder: " + entry.getName());
                }
                Files.createDirectories(file.getParent());
                Files.copy(zip, file);
                files++;
            }
        }
        return files;
    }

    private static void remove(Path folder) throws IOException {
        if (!Files.exists(folder)) {
            return;
        }
        Files.walkFileTree(folder, new SimpleFileVisitor<>() {
            @Override
            public FileVisitResult visitFile(Path file, BasicFileAttributes attributes) throws IOException {
                Files.delete(file);
                return FileVisitResult.CONTINUE;
            }

            @Override
            public FileVisitResult postVisitDirectory(Path dir, IOException e) throws IOException {
                Files.delete(dir);
                return FileVisitResult.CONTINUE;
            }
        });
    }

    /** This machine's own certificate is signed by nobody, and only this machine is asked. */
    private static SSLContext trusting() throws GeneralSecurityException {
        SSLContext context = SSLContext.getInstance("TLS");
        context.init(null, new TrustManager[] {new Trusting()}, null);
        return context;
    }

    private static final class Trusting extends X509ExtendedTrustManager {
        @Override
        public void checkClientTrusted(X509Certificate[] chain, String type, Socket socket) {}

        @Override
        public void checkServerTrusted(X509Certificate[] chain, String type, Socket socket) {}

        @Override
        public void checkClientTrusted(X509Certificate[] chain, String type, SSLEngine engine) {}

        @Override
        public void checkServerTrusted(X509Certificate[] chain, String type, SSLEngine engine) {}

        @Override
        public void checkClientTrusted(X509Certificate[] chain, String type) {}

        @Override
        public void checkServerTrusted(X509Certificate[] chain, String type) {}

        @Override
        public X509Certificate[] getAcceptedIssuers() {
            return new X509Certificate[0];
        }
    }
}
