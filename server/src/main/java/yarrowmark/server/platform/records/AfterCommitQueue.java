package yarrowmark.server.platform.records;

import java.util.HashSet;
import java.util.Set;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.DisposableBean;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionSynchronization;
import org.springframework.transaction.support.TransactionSynchronizationManager;

/**
 * Work that follows a commit and needs the records itself. It runs one after the other, in the order of the commits,
 * outside of the transaction that asked for it and of its connection. A listener that asks for a second connection while
 * the first is still held stops everybody, as soon as as many commit at once as there are connections.
 *
 * <p>Nothing of it can turn the answer to whoever committed: what fails here is logged, and the records stay as they are.
 */
@Component
public class AfterCommitQueue implements DisposableBean {
    private static final Logger LOG = LoggerFactory.getLogger(AfterCommitQueue.class);

    private final ExecutorService worker = Executors.newSingleThreadExecutor(work -> {
        Thread thread = new Thread(work, "later");
        thread.setDaemon(true);
        return thread;
    });
    private final Set<Object> waiting = new HashSet<>();

    /**
     * Runs the work once the transaction of now is committed; at once, but beside the caller, where there is none.
     *
     * @param what stands for the work: the same that waits already is not done twice
     */
    public void afterCommit(Object what, Runnable work) {
        if (TransactionSynchronizationManager.isSynchronizationActive()) {
            TransactionSynchronizationManager.registerSynchronization(new TransactionSynchronization() {
                @Override
                public void afterCommit() {
                    add(what, work);
                }
            });
        } else {
            add(what, work);
        }
    }

    private void add(Object what, Runnable work) {
        synchronized (waiting) {
            if (!waiting.add(what)) {
                return;
            }
        }
        worker.execute(() -> {
            // From here on a new change is a new piece of work: this one may have read the records already.
            synchronized (waiting) {
                waiting.remove(what);
            }
            try {
                TransactionRetry.run(work);
            } catch (RuntimeException e) {
                LOG.warn("What follows {} could not be done", what, e);
            }
        });
    }

    @Override
    public void destroy() {
        worker.shutdownNow();
    }
}
