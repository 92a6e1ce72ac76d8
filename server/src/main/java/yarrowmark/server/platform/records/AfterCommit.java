package yarrowmark.server.platform.records;

import org.springframework.transaction.support.TransactionSynchronization;
import org.springframework.transaction.support.TransactionSynchronizationManager;

/** What is said only once the records have it. */
public final class AfterCommit {
    private AfterCommit() {}

    /** At once where there is no transaction. */
    public static void run(Runnable then) {
        if (!TransactionSynchronizationManager.isSynchronizationActive()) {
            then.run();
            return;
        }
        TransactionSynchronizationManager.registerSynchronization(new TransactionSynchronization() {
            @Override
            public void afterCommit() {
                then.run();
            }
        });
    }
}
