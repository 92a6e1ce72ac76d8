package yarrowmark.server.platform.change;

import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.concurrent.atomic.AtomicLong;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionSynchronization;
import org.springframework.transaction.support.TransactionSynchronizationManager;

/**
 * The one place where whoever mirrors records hears of what was committed: all of them, of one commit after the other, and
 * each change once. Then the revision rises, so that no answer is kept as one of after a change that its mirrors did not
 * know of.
 */
@Component
public class ChangeFeed {
    private static final Logger LOG = LoggerFactory.getLogger(ChangeFeed.class);

    private final ObjectProvider<Mirror> mirrors;
    private final Revision revision;
    private final AtomicLong missed = new AtomicLong();

    public ChangeFeed(ObjectProvider<Mirror> mirrors, Revision revision) {
        this.mirrors = mirrors;
        this.revision = revision;
    }

    @EventListener
    @SuppressWarnings("unchecked")
    public void changed(RecordsChanged event) {
        if (!TransactionSynchronizationManager.isSynchronizationActive()) {
            tell(List.of(event));
            return;
        }
        Set<RecordsChanged> mine = (Set<RecordsChanged>) gathered();
        if (mine == null) {
            // Each once: an import touches the same model many times.
            Set<RecordsChanged> made = new LinkedHashSet<>();
            TransactionSynchronizationManager.bindResource(this, made);
            TransactionSynchronizationManager.registerSynchronization(new TransactionSynchronization() {
                @Override
                public int getOrder() {
                    // Before anybody else hears of the commit.
                    return Integer.MIN_VALUE;
                }

                @Override
                public void afterCommit() {
                    tell(made);
                }

                @Override
                public void afterCompletion(int status) {
                    TransactionSynchronizationManager.unbindResourceIfPossible(ChangeFeed.this);
                }
            });
            mine = made;
        }
        mine.add(event);
    }

    /** Whether the transaction of now has changed something of this kind: what it reads then is not what was committed. */
    public boolean changedHere(Class<? extends RecordsChanged> kind) {
        return gathered() instanceof Set<?> mine && mine.stream().anyMatch(kind::isInstance);
    }

    /** How many times a mirror could not note a commit. */
    public long missed() {
        return missed.get();
    }

    private @Nullable Object gathered() {
        return TransactionSynchronizationManager.getResource(this);
    }

    private synchronized void tell(Iterable<RecordsChanged> changes) {
        mirrors.orderedStream().forEach(mirror -> {
            for (RecordsChanged change : changes) {
                try {
                    mirror.note(change);
                } catch (RuntimeException e) {
                    // What follows a commit cannot turn its answer, nor keep the others from hearing of it.
                    missed.incrementAndGet();
                    LOG.error("{} could not note {}", mirror, change, e);
                }
            }
        });
        revision.rise();
    }
}
