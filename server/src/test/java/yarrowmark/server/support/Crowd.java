package yarrowmark.server.support;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;

/** Many parties who do something in the same moment. */
public final class Crowd {
    public static final int PARTIES = 32;

    private Crowd() {}

    /** @return what each was answered */
    public static <T> List<T> atOnce(List<Callable<T>> parties) throws Exception {
        CountDownLatch go = new CountDownLatch(1);
        ExecutorService threads = Executors.newFixedThreadPool(parties.size());
        try {
            List<Future<T>> answers = parties.stream()
                    .map(party -> threads.submit(() -> {
                        go.await();
                        return party.call();
                    }))
                    .toList();
            go.countDown();
            List<T> all = new ArrayList<>();
            for (Future<T> answer : answers) {
                all.add(answer.get(5, TimeUnit.MINUTES));
            }
            return all;
        } finally {
            threads.shutdownNow();
        }
    }
}
