package yarrowmark.server.platform.http;

import java.time.Instant;

/**
 * Somebody is no longer signed in somewhere, or a key was taken back. Whoever keeps a connection open for it ends that at once.
 *
 * @param opener what it was opened by, as {@link #OPENER} of its request names it
 */
public record AccessEnded(String opener) {
    /** The place from which a request comes, a {@code Long}; absent for one that a key or nobody sends. */
    public static final String PLACE = "yarrowmark.place";
    /** What lets a request in, a {@link Opener}; absent where nothing does. */
    public static final String OPENER = "yarrowmark.opener";

    /** @param until when it ends by itself at the latest */
    public record Opener(String name, Instant until) {}

    public static String place(long id) {
        return "place " + id;
    }

    public static String key(long id) {
        return "key " + id;
    }
}
