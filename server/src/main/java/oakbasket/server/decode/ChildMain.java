package oakbasket.server.decode;

import java.io.BufferedInputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.EOFException;
import java.io.FileDescriptor;
import java.io.FileOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ServiceConfigurationError;
import oakbasket.server.decode.work.DecodeWork;
import oakbasket.server.problem.Problem;

/**
 * A child process: asked over its standard input, it decodes one file after another and answers over its standard output, until its input ends. It watches its own time, so that none outlives the server that asked it.
 */
public final class ChildMain {

    /** How the server knows that a child ran out of time by itself. */
    static final int TOO_LONG = 75;
    private static final int BROKEN = 70;
    private static final String WORK = "oakbasket.server.decode.work.";

    private ChildMain() {
    }

    /** @param arguments how long one file may take in milliseconds, and the folder it may write to for a while */
    public static void main(String[] arguments) throws IOException {
        DataInputStream in = new DataInputStream(new BufferedInputStream(System.in));
        DataOutputStream out = new DataOutputStream(new FileOutputStream(FileDescriptor.out));
        // What a library prints must not be taken for an answer.
        System.setOut(System.err);
        long most = Long.parseLong(arguments[0]);
        ChildGuard guard = ChildGuard.install(Path.of(arguments[1]));
        Frames.write(out, Frames.Kind.DONE, new byte[0]);
        while (true) {
            Frames.Question question;
            try {
                question = Frames.JSON.readValue(Frames.read(in, Frames.LONGEST_QUESTION).body(), Frames.Question.class);
            } catch (EOFException noMore) {
                return;
            }
            Thread watch = new Thread(() -> endAfter(most), "watch");
            watch.setDaemon(true);
            watch.start();
            Frames.Frame answer = answer(question, guard);
            watch.interrupt();
            Frames.write(out, answer.kind(), answer.body());
        }
    }

    private static void endAfter(long millis) {
        try {
            Thread.sleep(millis);
            Runtime.getRuntime().halt(TOO_LONG);
        } catch (InterruptedException done) {
            Thread.currentThread().interrupt();
        }
    }

    private static Frames.Frame answer(Frames.Question question, ChildGuard guard) {
        try {
            if (!question.work().startsWith(WORK)) {
                throw new ClassNotFoundException(question.work());
            }
            DecodeWork<?> work = (DecodeWork<?>) Frames.JSON.treeToValue(question.about(), Class.forName(question.work()));
            Path file = Path.of(question.path());
            guard.allow(file);
            return new Frames.Frame(Frames.Kind.DONE, Frames.JSON.writeValueAsBytes(work.work(file)));
        } catch (Problem refused) {
            return new Frames.Frame(Frames.Kind.REFUSED, Frames.JSON.writeValueAsBytes(Frames.Refusal.of(refused)));
        } catch (ClassNotFoundException | LinkageError | ServiceConfigurationError mistake) {
            return new Frames.Frame(Frames.Kind.FAULT, (mistake + ", " + mistake.getCause()).getBytes(StandardCharsets.UTF_8));
        } catch (Exception damaged) {
            return new Frames.Frame(Frames.Kind.DAMAGED, damaged.getClass().getSimpleName().getBytes(StandardCharsets.UTF_8));
        } catch (Error ended) {
            // Out of memory or out of stack: what else is broken now nobody knows. Seen only where a child is started by hand.
            ended.printStackTrace();
            Runtime.getRuntime().halt(BROKEN);
            throw ended;
        } finally {
            guard.allowNothing();
        }
    }
}
