package oakbasket.server.decode;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.File;
import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What a child may do, tried by a process that has the fence of one around it: the file it was given and its own folder, and nothing else. */
class ChildGuardTest {

    @TempDir
    private Path folder;

    /** Stands in for a library that was talked into something by the file it reads. */
    public static final class Tries {

        private interface Try {
            void now() throws Exception;
        }

        private Tries() {
        }

        /** @param arguments the folder it may write to, the file it was given, another one, and a port on which somebody listens */
        public static void main(String[] arguments) {
            Path scratch = Path.of(arguments[0]);
            Path given = Path.of(arguments[1]);
            Path other = Path.of(arguments[2]);
            ChildGuard guard = ChildGuard.install(scratch);
            guard.allow(given);
            List<String> done = new ArrayList<>();
            attempt(done, "read given", () -> Files.readString(given));
            attempt(done, "write scratch", () -> Files.writeString(scratch.resolve("x"), "x"));
            attempt(done, "read other", () -> Files.readString(other));
            attempt(done, "read password file", () -> Files.readString(Path.of("/etc/passwd")));
            attempt(done, "read around", () -> Files.readString(scratch.resolve("../other.txt")));
            attempt(done, "write given", () -> Files.writeString(given, "changed"));
            attempt(done, "delete given", () -> Files.delete(given));
            attempt(done, "list", () -> Files.list(other.getParent()).close());
            attempt(done, "connect", () -> new Socket(InetAddress.getLoopbackAddress(), Integer.parseInt(arguments[3])).close());
            attempt(done, "listen", () -> new ServerSocket(0).close());
            attempt(done, "resolve", () -> InetAddress.getByName("example.org"));
            attempt(done, "run", () -> new ProcessBuilder("true").start());
            attempt(done, "take the fence away", () -> System.class.getMethod("setSecurityManager", Class.forName("java.lang.SecurityManager")).invoke(null, (Object) null));
            guard.allowNothing();
            attempt(done, "read given afterwards", () -> Files.readString(given));
            System.out.println(String.join(", ", done));
        }

        private static void attempt(List<String> done, String what, Try work) {
            try {
                work.now();
                done.add(what);
            } catch (Exception refused) {
                // What is not in the list was refused.
            }
        }
    }

    @Test
    void aChildReadsWhatItWasGivenAndWritesToItsFolderAndThatIsAll() throws Exception {
        Path scratch = Files.createDirectory(folder.resolve("scratch"));
        Path given = Files.writeString(folder.resolve("given.txt"), "given");
        Path other = Files.writeString(folder.resolve("other.txt"), "a secret");
        try (ServerSocket listening = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            Process process = new ProcessBuilder(Path.of(System.getProperty("java.home"), "bin", "java").toString(), "-cp", System.getProperty("java.class.path"), Tries.class.getName(), scratch.toString(), given.toString(),
                    other.toString(), String.valueOf(listening.getLocalPort())).redirectError(ProcessBuilder.Redirect.DISCARD).start();
            String done = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8).strip();
            assertThat(process.waitFor(60, TimeUnit.SECONDS)).isTrue();
            assertThat(done).isEqualTo("read given, write scratch");
        }
        assertThat(given).hasContent("given");
    }

    /** The system's own fence, where it is there: a child has not even an address of its own. */
    @Test
    void whereTheSystemLetsUsAChildHasNoNetworkAtAll() throws Exception {
        ChildCommand command = ChildCommand.found(ChildClasspath.in(folder));
        Path scratch = Files.createDirectory(folder.resolve("scratch"));
        Process child = command.start(scratch, Duration.ofSeconds(30));
        try {
            assertThat(Frames.read(new java.io.DataInputStream(child.getInputStream()), 0).kind()).as("it is ready, so behind all fences").isEqualTo(Frames.Kind.DONE);
            Path routes = Path.of("/proc/" + child.pid() + "/net/route");
            if (command.withoutNetwork() && Files.isReadable(routes)) {
                assertThat(Files.readAllLines(routes)).as("a heading and no way anywhere").hasSizeLessThanOrEqualTo(1);
            }
            assertThat(child.isAlive()).isTrue();
        } finally {
            child.destroyForcibly();
        }
    }

    /** A child may be anybody's by now: what it says is read within bounds, and what is no answer is none. */
    @ParameterizedTest
    @ValueSource(strings = {"", "x", "\u0000\u007f\u00ff\u00ff\u00ff", "\u0000\u00ff\u00ff\u00ff\u00ff", "\u0009\u0000\u0000\u0000\u0001a", "\u0000\u0000\u0000\u0000\u0009short"})
    void whatIsNoFrameIsRefused(String bytes) {
        java.io.DataInputStream in = new java.io.DataInputStream(new java.io.ByteArrayInputStream(bytes.getBytes(StandardCharsets.ISO_8859_1)));
        org.assertj.core.api.Assertions.assertThatThrownBy(() -> Frames.read(in, 1_000)).isInstanceOf(IOException.class);
    }

    @Test
    void onlyThePartsThatAChildNeedsAreOnItsPath() throws IOException {
        String path = ChildClasspath.in(folder);
        assertThat(path.split(File.pathSeparator)).anyMatch(part -> part.contains("pdfbox")).noneMatch(part -> part.matches(".*/(spring-|h2-|jetty-|greenmail).*"));
    }
}
