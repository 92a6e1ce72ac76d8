package yarrowmark.server.bench;

import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;
import org.springframework.stereotype.Component;
import org.springframework.web.context.request.async.DeferredResult;

/** Devices that wait for the reviewer's next command. A device asks once and is answered when there is something to say. */
@Component
class CommandPolls {
    private static final long LONGEST_MS = 55_000;

    /** @param revision grows with each command */
    record CommandState(Command command, int revision) {}

    private record Waiter(DeferredResult<CommandState> answer, int known) {}

    private final Map<Long, List<Waiter>> waiting = new ConcurrentHashMap<>();

    /** @param known the newest revision the device has seen; nothing newer for a while answers with the same state */
    DeferredResult<CommandState> wait(long seatId, int known, CommandState now) {
        Waiter waiter = new Waiter(new DeferredResult<>(LONGEST_MS, now), known);
        waiting.compute(seatId, (seat, there) -> {
            List<Waiter> all = there == null ? new CopyOnWriteArrayList<>() : there;
            all.add(waiter);
            return all;
        });
        // A seat that nobody waits for keeps nothing.
        waiter.answer()
                .onCompletion(() -> waiting.computeIfPresent(seatId, (seat, all) -> {
                    all.remove(waiter);
                    return all.isEmpty() ? null : all;
                }));
        return waiter.answer();
    }

    void tell(long seatId, CommandState state) {
        waiting.getOrDefault(seatId, List.of()).stream()
                .filter(w -> state.revision() > w.known())
                .forEach(w -> w.answer().setResult(state));
    }

    int seats() {
        return waiting.size();
    }
}
