package yarrowmark.server.bench;

import java.io.IOException;
import java.time.Duration;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.UUID;
import java.util.concurrent.CopyOnWriteArrayList;
import org.jspecify.annotations.Nullable;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/**
 * Live lanes for everybody who watches the bench. Each event has an id "start-number"; a reader that reconnects with
 * the last id it saw gets what it missed. Where that is too long ago, or the server was restarted in between, it gets
 * a "reset" instead and reads the whole bench anew.
 */
@Component
class LiveFeed {
    private static final int KEPT = 500;
    private static final Duration LONGEST = Duration.ofHours(6);

    record Event(long number, String name, Object data) {}

    private final String start = UUID.randomUUID().toString().substring(0, 8);
    private final List<SseEmitter> readers = new CopyOnWriteArrayList<>();
    private final Deque<Event> kept = new ArrayDeque<>();
    private long last;

    /** The id that a reader of the whole bench has seen everything up to. */
    synchronized String cursor() {
        return start + "-" + last;
    }

    synchronized void publish(String name, Object data) {
        Event event = new Event(++last, name, data);
        kept.addLast(event);
        if (kept.size() > KEPT) {
            kept.removeFirst();
        }
        readers.forEach(reader -> send(reader, event));
    }

    synchronized SseEmitter read(@Nullable String lastSeen) {
        SseEmitter reader = new SseEmitter(LONGEST.toMillis());
        reader.onCompletion(() -> readers.remove(reader));
        reader.onTimeout(reader::complete);
        reader.onError(e -> readers.remove(reader));
        readers.add(reader);
        // Without a first line the reader would not know that it is connected until something happens.
        breathe(reader);
        for (Event missed : missed(lastSeen)) {
            send(reader, missed);
        }
        return reader;
    }

    synchronized List<Event> missed(@Nullable String lastSeen) {
        if (lastSeen == null || lastSeen.isEmpty()) {
            return List.of();
        }
        long first = kept.isEmpty() ? last + 1 : kept.peekFirst().number();
        if (!lastSeen.matches(start + "-\\d{1,18}")) {
            return List.of(new Event(last, "reset", ""));
        }
        long seen = Long.parseLong(lastSeen.substring(start.length() + 1));
        if (seen > last || seen < first - 1) {
            return List.of(new Event(last, "reset", ""));
        }
        return new ArrayList<>(kept.stream().filter(e -> e.number() > seen).toList());
    }

    private void send(SseEmitter reader, Event event) {
        try {
            reader.send(SseEmitter.event()
                    .id(start + "-" + event.number())
                    .name(event.name())
                    .data(event.data()));
        } catch (IOException | IllegalStateException e) {
            // The reader went away; it comes back with the last id it saw.
            readers.remove(reader);
        }
    }

    /** A silent connection looks dead to the reader and to whatever stands between. */
    @Scheduled(fixedRate = 15_000)
    void breathe() {
        readers.forEach(this::breathe);
    }

    private void breathe(SseEmitter reader) {
        try {
            reader.send(SseEmitter.event().comment(""));
        } catch (IOException | IllegalStateException e) {
            readers.remove(reader);
        }
    }
}
