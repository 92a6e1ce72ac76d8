package yarrowmark.server.bench;

import java.io.IOException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.DisposableBean;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.context.event.EventListener;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.mvc.method.annotation.ResponseBodyEmitter;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;
import tools.jackson.databind.json.JsonMapper;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.http.AccessEnded;

/**
 * Live lanes for everybody who watches the bench. Each event has an id "start-number"; a reader that reconnects with
 * the last id it saw gets what it missed. Where that is too long ago, or the server was restarted in between, it gets
 * a "reset" instead and reads the whole bench anew.
 *
 * <p>What is told is written as text once, however many read it, and a reader gets at once what gathers within a fifth of a
 * second: of a lane that changed twice the newer state only. With sixty devices and three hundred readers, writing each
 * event to each reader by itself took most of the machine.
 *
 * <p>Each reader has a queue of its own, and whoever publishes only adds to it: a laptop that sleeps keeps its connection
 * open and reads nothing, and a write to it stands still for a minute. A reader whose queue is full is dropped; it comes
 * back with the last id it saw.
 */
@Component
class LiveFeed implements DisposableBean {
    private static final Logger LOG = LoggerFactory.getLogger(LiveFeed.class);
    private static final int KEPT = 500;
    private static final int MOST_WAITING = 200;
    private static final int MOST_READERS = 1_000;
    private static final Duration LONGEST = Duration.ofHours(6);

    private static final long GATHER_MS = 200;

    /** @param of what it tells the state of: a newer one of the same takes its place. @param data as JSON */
    record Event(long number, String name, Object of, String data) {}

    private final String start = UUID.randomUUID().toString().substring(0, 8);
    private final Set<Reader> readers = ConcurrentHashMap.newKeySet();
    private final Deque<Event> kept = new ArrayDeque<>();
    private final Supplier<SseEmitter> connections;
    /** One that stands still keeps a thread and no more; as many as readers at the most. */
    private final ExecutorService writers = Executors.newCachedThreadPool(work -> {
        Thread thread = new Thread(work, "live-feed");
        thread.setDaemon(true);
        return thread;
    });

    private final ScheduledExecutorService clock = Executors.newSingleThreadScheduledExecutor(work -> {
        Thread thread = new Thread(work, "live-feed-clock");
        thread.setDaemon(true);
        return thread;
    });
    private final JsonMapper json;
    private final Clock time;

    private long last;

    @Autowired
    LiveFeed(JsonMapper json, Clock time) {
        this(json, time, () -> new SseEmitter(LONGEST.toMillis()));
    }

    LiveFeed(JsonMapper json, Clock time, Supplier<SseEmitter> connections) {
        this.json = json;
        this.time = time;
        this.connections = connections;
    }

    /** The id that a reader of the whole bench has seen everything up to. */
    synchronized String cursor() {
        return start + "-" + last;
    }

    /** @param of what this tells the state of, such as a seat's id */
    void publish(String name, Object of, Object data) {
        String text = json.writeValueAsString(data);
        publish(name, of, text);
    }

    private synchronized void publish(String name, Object of, String data) {
        Event event = new Event(++last, name, of, data);
        kept.addLast(event);
        if (kept.size() > KEPT) {
            kept.removeFirst();
        }
        readers.forEach(reader -> reader.add(event));
    }

    /** Whoever was signed out there, or had a key that was taken back, sees nothing more. */
    @EventListener
    void ended(AccessEnded event) {
        readers.stream()
                .filter(r -> r.opener != null && r.opener.name().equals(event.opener()))
                .forEach(r -> r.emitter.complete());
    }

    /** @param opener what lets its reader in: it ends with that */
    synchronized SseEmitter read(@Nullable String lastSeen, AccessEnded.@Nullable Opener opener) {
        if (readers.size() >= MOST_READERS) {
            throw new Problem(
                    HttpStatus.SERVICE_UNAVAILABLE,
                    "too-many-readers",
                    "The bench is watched from " + MOST_READERS + " places already. Close some, or try again later.");
        }
        Reader reader = new Reader(connections.get(), opener);
        reader.emitter.onCompletion(() -> readers.remove(reader));
        reader.emitter.onTimeout(reader.emitter::complete);
        reader.emitter.onError(e -> readers.remove(reader));
        readers.add(reader);
        // Without a first line the reader would not know that it is connected until something happens.
        reader.breathe();
        missed(lastSeen).forEach(reader::add);
        return reader.emitter;
    }

    int readers() {
        return readers.size();
    }

    synchronized List<Event> missed(@Nullable String lastSeen) {
        if (lastSeen == null || lastSeen.isEmpty()) {
            return List.of();
        }
        long first = kept.isEmpty() ? last + 1 : kept.getFirst().number();
        if (!lastSeen.matches(start + "-\\d{1,18}")) {
            return List.of(new Event(last, "reset", "", "\"\""));
        }
        long seen = Long.parseLong(lastSeen.substring(start.length() + 1));
        if (seen > last || seen < first - 1) {
            return List.of(new Event(last, "reset", "", "\"\""));
        }
        return new ArrayList<>(kept.stream().filter(e -> e.number() > seen).toList());
    }

    /** A silent connection looks dead to the reader and to whatever stands between. */
    @Scheduled(fixedRate = 15_000)
    void breathe() {
        Instant now = time.instant();
        readers.stream()
                .filter(r -> r.opener != null && now.isAfter(r.opener.until()))
                .forEach(r -> r.emitter.complete());
        readers.forEach(Reader::breathe);
    }

    @Override
    public void destroy() {
        clock.shutdownNow();
        writers.shutdownNow();
    }

    /** Somebody who watches, with what still has to be written to them. */
    private final class Reader {
        private final SseEmitter emitter;
        /** An empty place is a breath. */
        private final Deque<Optional<Event>> waiting = new ArrayDeque<>();

        private final AccessEnded.@Nullable Opener opener;
        private boolean first = true;
        private boolean writing;
        private boolean gone;

        Reader(SseEmitter emitter, AccessEnded.@Nullable Opener opener) {
            this.emitter = emitter;
            this.opener = opener;
        }

        void add(Event event) {
            offer(Optional.of(event));
        }

        synchronized void breathe() {
            if (waiting.isEmpty()) {
                offer(Optional.empty());
            }
        }

        private synchronized void offer(Optional<Event> event) {
            if (gone) {
                return;
            }
            event.ifPresent(newer -> waiting.removeIf(w -> w.isPresent()
                    && w.get().name().equals(newer.name())
                    && w.get().of().equals(newer.of())));
            if (waiting.size() >= MOST_WAITING) {
                drop();
                return;
            }
            waiting.addLast(event);
            if (!writing) {
                writing = true;
                clock.schedule(() -> writers.execute(this::write), first ? 0 : GATHER_MS, TimeUnit.MILLISECONDS);
                first = false;
            }
        }

        private void write() {
            while (true) {
                List<Optional<Event>> next;
                synchronized (this) {
                    if (gone || waiting.isEmpty()) {
                        writing = false;
                        return;
                    }
                    next = List.copyOf(waiting);
                    waiting.clear();
                }
                try {
                    emitter.send(text(next));
                } catch (IOException | IllegalStateException e) {
                    // The reader went away; it comes back with the last id it saw.
                    drop();
                } catch (RuntimeException e) {
                    // Left as it is, the reader would stand still for ever with a queue that nobody empties.
                    LOG.error("News could not be written to a reader of the bench", e);
                    drop();
                }
            }
        }

        /** All of them in one go. */
        private Set<ResponseBodyEmitter.DataWithMediaType> text(List<Optional<Event>> events) {
            StringBuilder lines = new StringBuilder();
            for (Optional<Event> event : events) {
                event.ifPresentOrElse(
                        e -> lines.append("id:")
                                .append(start)
                                .append('-')
                                .append(e.number())
                                .append("\nevent:")
                                .append(e.name())
                                .append("\ndata:")
                                .append(e.data())
                                .append("\n\n"),
                        () -> lines.append(":\n\n"));
            }
            return Set.of(new ResponseBodyEmitter.DataWithMediaType(lines.toString(), MediaType.TEXT_PLAIN));
        }

        /** Ending a connection waits for the write that stands still, so that is done beside as well. */
        private synchronized void drop() {
            gone = true;
            waiting.clear();
            readers.remove(this);
            writers.execute(emitter::complete);
        }
    }
}
