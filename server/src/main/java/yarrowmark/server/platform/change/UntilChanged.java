package yarrowmark.server.platform.change;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.function.Supplier;

/**
 * Answers that hold until the records change. Whoever mirrors records hears of a change before the revision rises, so no
 * answer is kept as one of after that was made from before.
 *
 * @param <Q> what is asked, with equals and hashCode
 * @param <A> the answer
 */
public final class UntilChanged<Q, A> {
    private record Key<Q>(Q question, long revision) {}

    private final Revision revision;
    private final Cache<Key<Q>, A> kept;

    /** @param most answers that are kept at once */
    public UntilChanged(Revision revision, int most) {
        this.revision = revision;
        this.kept = Caffeine.newBuilder().maximumSize(most).build();
    }

    /** Two who ask at once for what is not there both make it, and wait for nobody. */
    public A get(Q question, Supplier<A> make) {
        Key<Q> key = new Key<>(question, revision.now());
        A there = kept.getIfPresent(key);
        if (there != null) {
            return there;
        }
        A made = make.get();
        // Those of before hold nothing any more, and may be large.
        kept.asMap().keySet().removeIf(k -> k.revision() < key.revision());
        kept.put(key, made);
        return made;
    }
}
