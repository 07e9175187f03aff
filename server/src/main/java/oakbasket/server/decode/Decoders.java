package oakbasket.server.decode;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.HexFormat;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import oakbasket.server.decode.work.DecodeWork;
import oakbasket.server.problem.Problem;
import oakbasket.server.security.Hash;
import oakbasket.server.storage.Acting;
import oakbasket.server.storage.DataFolder;
import oakbasket.server.storage.Transactions;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;
import org.springframework.util.FileSystemUtils;
import tools.jackson.core.JacksonException;

/**
 * The pool of children. Where strangers wait for what they put in themselves they get one child at a time, whoever of them asks, and mail gets one: so the desk always finds one that is not theirs. What ends a child is noted
 * with its content and not tried again. With two servers each has a pool of its own, on purpose; what is noted is in the database and holds for both.
 */
@Service
public class Decoders {

    /** For whom something is decoded. */
    public enum Lane {
        /** Somebody who is signed in waits. */
        DESK(MOST_CHILDREN, Duration.ofSeconds(30)),
        /** Somebody outside waits. */
        OUTSIDE(1, Duration.ofSeconds(15)),
        /** A message that came by mail. */
        MAIL(1, Duration.ofSeconds(15));

        private final int atOnce;
        /** How long one file may take, and how long its turn is waited for. */
        private final Duration most;

        Lane(int atOnce, Duration most) {
            this.atOnce = atOnce;
            this.most = most;
        }
    }

    private static final int MOST_CHILDREN = 3;
    /** More do not wait for one lane; whoever comes then is asked to come again. */
    private static final int MOST_WAITING = 12;
    private static final Duration LONGEST = Duration.ofSeconds(30);
    private static final Pattern OWN = Pattern.compile("p(\\d{1,18})-.*");
    private static final Logger LOG = LoggerFactory.getLogger(Decoders.class);

    private final Map<Lane, Semaphore> lanes = Stream.of(Lane.values()).collect(Collectors.toUnmodifiableMap(lane -> lane, lane -> new Semaphore(lane.atOnce, true)));
    private final Semaphore places = new Semaphore(MOST_CHILDREN, true);
    private final Deque<Child> idle = new ArrayDeque<>();
    private final ScheduledExecutorService timer = Executors.newSingleThreadScheduledExecutor(work -> {
        Thread thread = new Thread(work, "decode-timer");
        thread.setDaemon(true);
        return thread;
    });
    private final UndecodableTable undecodable;
    private final Transactions transactions;
    private final Clock clock;
    private final Path folder;
    private @Nullable ChildCommand command;
    private volatile boolean closed;

    Decoders(UndecodableTable undecodable, Transactions transactions, DataFolder data, Clock clock) {
        this.undecodable = undecodable;
        this.transactions = transactions;
        this.clock = clock;
        this.folder = data.decoding();
        tidy(folder);
    }

    /**
     * Has a file decoded.
     *
     * @param sha256 of what the file holds; content that ended a child before is not tried again
     * @return what came of it; empty when it cannot be decoded
     * @throws Problem when the file is refused in words, or too many wait at this moment
     */
    public <A> Optional<A> ask(DecodeWork<A> work, Path file, byte[] sha256, Lane lane) {
        String name = work.getClass().getSimpleName();
        if (undecodable.has(sha256, name)) {
            return Optional.empty();
        }
        Semaphore mine = Objects.requireNonNull(lanes.get(lane));
        if (mine.getQueueLength() >= MOST_WAITING || !acquired(mine, lane)) {
            throw Problem.of(Problem.Kind.BUSY, "glance-later");
        }
        try {
            if (!acquired(places, lane)) {
                throw Problem.of(Problem.Kind.BUSY, "glance-later");
            }
            try {
                return asked(work, file, sha256, name, lane);
            } finally {
                places.release();
            }
        } finally {
            mine.release();
        }
    }

    /** The same for content that lies nowhere else. */
    public <A> Optional<A> ask(DecodeWork<A> work, byte[] content, Lane lane) {
        Path file = null;
        try {
            file = Files.createTempFile(folder, own("given"), ".bin");
            Files.write(file, content);
            return ask(work, file, Hash.sha256().digest(content), lane);
        } catch (IOException full) {
            throw new UncheckedIOException(full);
        } finally {
            if (file != null) {
                try {
                    Files.deleteIfExists(file);
                } catch (IOException left) {
                    LOG.warn("{} could not be removed; it will be at the next start", file, left);
                }
            }
        }
    }

    private static boolean acquired(Semaphore places, Lane lane) {
        try {
            return places.tryAcquire(lane.most.toMillis(), TimeUnit.MILLISECONDS);
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
            return false;
        }
    }

    private <A> Optional<A> asked(DecodeWork<A> work, Path file, byte[] sha256, String name, Lane lane) {
        Child child = child();
        Frames.Frame answer;
        try {
            answer = child.ask(work, file, lane.most);
        } catch (IOException ended) {
            child.end();
            if (!closed) {
                LOG.warn("{} of content {} ended a child process ({}); it is not tried again", name, HexFormat.of().formatHex(sha256), ended.getMessage());
                Acting.officeDoes(() -> transactions.durably(() -> undecodable.note(sha256, name, clock.instant())));
            }
            return Optional.empty();
        }
        Optional<A> done;
        Problem refused = null;
        try {
            done = answer.kind() == Frames.Kind.DONE ? Optional.of(Frames.JSON.readValue(answer.body(), work.answers())) : Optional.empty();
            refused = answer.kind() == Frames.Kind.REFUSED ? Frames.JSON.readValue(answer.body(), Frames.Refusal.class).problem() : null;
        } catch (JacksonException noAnswer) {
            // Whoever answers so is not asked again.
            child.end();
            LOG.warn("A child process answered {} with what is no answer", name, noAnswer);
            return Optional.empty();
        }
        giveBack(child);
        if (refused != null) {
            throw refused;
        }
        return switch (answer.kind()) {
            case DONE -> done;
            case REFUSED, DAMAGED -> Optional.empty();
            case FAULT -> throw new IllegalStateException(name + " cannot be done by a child: " + new String(answer.body(), StandardCharsets.UTF_8));
        };
    }

    private Child child() {
        synchronized (idle) {
            for (Child one = idle.poll(); one != null; one = idle.poll()) {
                if (one.usable()) {
                    return one;
                }
                one.end();
            }
        }
        try {
            return Child.start(command(), Files.createTempDirectory(folder, own("child")), timer, LONGEST);
        } catch (IOException problem) {
            LOG.error("A child process does not start, so nothing can be decoded", problem);
            throw Problem.of(Problem.Kind.BUSY, "glance-later");
        }
    }

    private synchronized ChildCommand command() throws IOException {
        ChildCommand known = command;
        if (known == null) {
            known = ChildCommand.found(ChildClasspath.in(folder));
            LOG.info("Files are decoded in child processes, {}", known.withoutNetwork() ? "without network" : "whose network only Java closes, since this system does not");
            command = known;
        }
        return known;
    }

    private void giveBack(Child child) {
        synchronized (idle) {
            if (!closed && child.usable()) {
                idle.push(child);
                return;
            }
        }
        child.end();
    }

    /** Has one child ready before anybody asks; where the program is run from its classes, as in tests, the first one who asks waits for it. */
    @EventListener(ApplicationReadyEvent.class)
    void warm() {
        if (ChildClasspath.packaged() && places.tryAcquire()) {
            Thread warming = new Thread(() -> {
                try {
                    giveBack(child());
                } catch (Problem notNow) {
                    LOG.warn("No child process could be made ready; whoever asks first tries again");
                } finally {
                    places.release();
                }
            }, "decode-warm");
            warming.setDaemon(true);
            warming.start();
        }
    }

    /** Ends children that nobody needed for a while; one stays warm. */
    @Scheduled(fixedDelayString = "PT2M", initialDelayString = "PT2M")
    void rest() {
        while (true) {
            Child one;
            synchronized (idle) {
                if (idle.size() < 2) {
                    return;
                }
                one = idle.pollLast();
            }
            one.end();
        }
    }

    @EventListener(ContextClosedEvent.class)
    void close() {
        closed = true;
        timer.shutdownNow();
        synchronized (idle) {
            idle.forEach(Child::end);
            idle.clear();
        }
    }

    /** A beginning of names that tells whose they are. */
    private static String own(String what) {
        return "p" + ProcessHandle.current().pid() + "-" + what;
    }

    /** Removes what servers left that run no more; the laid out parts of the program stay. */
    private static void tidy(Path folder) {
        try (Stream<Path> left = Files.list(folder)) {
            for (Path one : left.filter(Decoders::nobodys).toList()) {
                FileSystemUtils.deleteRecursively(one);
            }
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
    }

    private static boolean nobodys(Path left) {
        Matcher name = OWN.matcher(left.getFileName().toString());
        return name.matches() && (name.group(1).equals(String.valueOf(ProcessHandle.current().pid())) || ProcessHandle.of(Long.parseLong(name.group(1))).isEmpty());
    }
}
