package yarrowmark.server.platform.records;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.springframework.transaction.support.TransactionSynchronization;
import org.springframework.transaction.support.TransactionSynchronizationManager;

class AfterCommitQueueTest {
    private final AfterCommitQueue later = new AfterCommitQueue();
    private final List<String> done = new CopyOnWriteArrayList<>();

    @AfterEach
    void end() {
        later.destroy();
    }

    private void settle() throws InterruptedException {
        CountDownLatch settled = new CountDownLatch(1);
        later.afterCommit(settled, settled::countDown);
        assertThat(settled.await(5, TimeUnit.MINUTES)).isTrue();
    }

    @Test
    void workRunsAfterTheCommitInOrderAndNotAfterARollback() throws InterruptedException {
        TransactionSynchronizationManager.initSynchronization();
        later.afterCommit("a", () -> done.add("a"));
        later.afterCommit("b", () -> done.add("b"));
        List<TransactionSynchronization> committed = TransactionSynchronizationManager.getSynchronizations();
        TransactionSynchronizationManager.clearSynchronization();
        settle();
        assertThat(done).as("nothing before the commit").isEmpty();
        committed.forEach(TransactionSynchronization::afterCommit);
        settle();
        assertThat(done).containsExactly("a", "b");
    }

    @Test
    void whatWaitsAlreadyIsNotDoneTwiceAndWhatFailsStopsNothing() throws InterruptedException {
        CountDownLatch busy = new CountDownLatch(1);
        later.afterCommit("busy", () -> {
            try {
                busy.await();
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
        });
        for (int i = 0; i < 5; i++) {
            later.afterCommit("seat 7", () -> done.add("seat 7"));
        }
        later.afterCommit("broken", () -> {
            throw new IllegalStateException("the records are out of reach");
        });
        later.afterCommit("seat 8", () -> done.add("seat 8"));
        busy.countDown();
        settle();
        assertThat(done).containsExactly("seat 7", "seat 8");
        later.afterCommit("seat 7", () -> done.add("seat 7 again"));
        settle();
        assertThat(done).endsWith("seat 7 again");
    }
}
