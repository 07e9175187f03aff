package oakbasket.server.decode;

import java.io.BufferedInputStream;
import java.io.BufferedOutputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Duration;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.ScheduledFuture;
import java.util.concurrent.TimeUnit;
import oakbasket.server.decode.work.DecodeWork;
import org.springframework.util.FileSystemUtils;

/** One child process, asked by one thread at a time. */
final class Child {

    private static final Duration STARTS_WITHIN = Duration.ofSeconds(30);
    /** How long an ended process is waited for. */
    private static final Duration GRACE = Duration.ofSeconds(1);
    /** With so much asked of it a child is replaced, so that what one file left in its memory does not stay. */
    private static final int MOST_FILES = 200;

    private final Process process;
    private final Path scratch;
    private final DataOutputStream out;
    private final DataInputStream in;
    private final ScheduledExecutorService clock;
    private int files;

    private Child(Process process, Path scratch, ScheduledExecutorService clock) {
        this.process = process;
        this.scratch = scratch;
        this.clock = clock;
        this.out = new DataOutputStream(new BufferedOutputStream(process.getOutputStream()));
        this.in = new DataInputStream(new BufferedInputStream(process.getInputStream()));
    }

    /** Starts one and waits until it is ready. @throws IOException when it does not start */
    static Child start(ChildCommand command, Path scratch, ScheduledExecutorService clock, Duration most) throws IOException {
        Child child = new Child(command.start(scratch, most), scratch, clock);
        try {
            child.within(STARTS_WITHIN, () -> Frames.read(child.in, 0));
        } catch (IOException | RuntimeException failed) {
            child.end();
            throw failed;
        }
        return child;
    }

    /** Asks. @param most how long the answer is waited for. @throws IOException when the child ended, or was ended, before it answered */
    Frames.Frame ask(DecodeWork<?> work, Path file, Duration most) throws IOException {
        files++;
        Frames.Question question = new Frames.Question(work.getClass().getName(), file.toAbsolutePath().toString(), Frames.JSON.valueToTree(work));
        return within(most, () -> {
            Frames.write(out, Frames.Kind.DONE, Frames.JSON.writeValueAsBytes(question));
            return Frames.read(in, work.longestAnswer());
        });
    }

    private interface Talk {
        Frames.Frame talk() throws IOException;
    }

    private Frames.Frame within(Duration span, Talk talk) throws IOException {
        ScheduledFuture<?> end = clock.schedule(process::destroyForcibly, span.toMillis(), TimeUnit.MILLISECONDS);
        try {
            return talk.talk();
        } finally {
            end.cancel(false);
        }
    }

    boolean usable() {
        return process.isAlive() && files < MOST_FILES;
    }

    /** Ends it, and removes what it has written. */
    void end() {
        process.destroyForcibly();
        try {
            process.waitFor(GRACE.toSeconds(), TimeUnit.SECONDS);
            FileSystemUtils.deleteRecursively(scratch);
        } catch (IOException left) {
            // The folder is emptied at the next start.
            scratch.toFile().deleteOnExit();
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
        }
    }
}
