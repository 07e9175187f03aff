package oakbasket.e2e;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.net.ServerSocket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;

/** The packaged application as its own process, that can be killed and started again on the same data. */
final class PackagedApp implements AutoCloseable {

    /** What is handed out. */
    static final Path JAR = Path.of("../server/target/oak-basket-app.jar");

    /** Tests start quickly and keep memory tight; a measurement runs as the README says. */
    private static final boolean MEASURING = System.getenv("OAK_BENCH") != null;
    private static final String MEMORY = MEASURING && !System.getenv("OAK_BENCH").equals("hold") ? "-Xmx512m" : "-Xmx256m";
    private static final String COMPILER = "-XX:TieredStopAtLevel=" + (MEASURING ? 4 : 1);
    private static final List<String> JAVA = List.of(Path.of(System.getProperty("java.home"), "bin", "java").toString(), MEMORY, COMPILER, "-XX:+ExitOnOutOfMemoryError");

    final int port;
    final Path data;
    private final Path jar;
    private final List<String> program;
    private final List<String> arguments;
    private final List<String> log = Collections.synchronizedList(new ArrayList<>());
    private Process process;

    PackagedApp(Path data, String... arguments) {
        this(JAR, MEASURING ? fromJar(JAR) : QuickStart.of(JAR, JAVA), data, arguments);
    }

    /** The jar as it is handed out, or another than the product's for a measurement beside it. */
    static PackagedApp of(Path jar, Path data, String... arguments) {
        return new PackagedApp(jar, fromJar(jar), data, arguments);
    }

    private PackagedApp(Path jar, List<String> program, Path data, String... arguments) {
        this.jar = jar;
        this.program = program;
        this.data = data;
        this.arguments = List.of(arguments);
        this.port = freePort();
        start();
    }

    String url() {
        return "http://localhost:" + port;
    }

    List<String> log() {
        synchronized (log) {
            return List.copyOf(log);
        }
    }

    void start() {
        List<String> command = new ArrayList<>(program);
        command.addAll(List.of("--server.port=" + port, "--oakbasket.data=" + data));
        command.addAll(arguments);
        try {
            process = new ProcessBuilder(command).redirectErrorStream(true).start();
            Thread reader = new Thread(() -> read(process));
            reader.setDaemon(true);
            reader.start();
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
        awaitReady();
    }

    /** What is run. */
    Path jar() {
        return jar;
    }

    /** Whether the process runs. */
    boolean alive() {
        return process.isAlive();
    }

    /** What the process holds of this machine's memory. */
    long residentMebibytes() {
        try {
            return Files.readAllLines(Path.of("/proc", Long.toString(process.pid()), "status")).stream().filter(line -> line.startsWith("VmRSS"))
                    .mapToLong(line -> Long.parseLong(line.replaceAll("\\D", "")) / 1024).findFirst().orElse(0);
        } catch (IOException gone) {
            return 0;
        }
    }

    /** Ends the process in good order, so that its database can be opened by others. */
    void stop() {
        process.destroy();
        process.onExit().join();
    }

    /** Ends the process as {@code kill -9} does. */
    void kill() {
        process.destroyForcibly();
        process.onExit().join();
    }

    @Override
    public void close() {
        kill();
    }

    private static List<String> fromJar(Path jar) {
        List<String> command = new ArrayList<>(JAVA);
        command.addAll(List.of("-jar", jar.toString()));
        return List.copyOf(command);
    }

    private void read(Process from) {
        try (BufferedReader lines = new BufferedReader(new InputStreamReader(from.getInputStream(), StandardCharsets.UTF_8))) {
            lines.lines().forEach(log::add);
        } catch (IOException | UncheckedIOException ended) {
            log.add("(end of output)");
        }
    }

    private void awaitReady() {
        HttpClient client = HttpClient.newHttpClient();
        Instant until = Instant.now().plusSeconds(90);
        while (Instant.now().isBefore(until) && process.isAlive()) {
            try {
                if (client.send(HttpRequest.newBuilder(URI.create(url() + "/actuator/health")).timeout(Duration.ofSeconds(5)).build(),
                        HttpResponse.BodyHandlers.discarding()).statusCode() == 200) {
                    return;
                }
            } catch (IOException notYet) {
                pause();
            } catch (InterruptedException stopped) {
                throw new IllegalStateException(stopped);
            }
        }
        throw new IllegalStateException("The application did not start:\n" + String.join("\n", log()));
    }

    private static void pause() {
        try {
            Thread.sleep(50);
        } catch (InterruptedException stopped) {
            throw new IllegalStateException(stopped);
        }
    }

    private static int freePort() {
        try (ServerSocket socket = new ServerSocket(0)) {
            return socket.getLocalPort();
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
    }

    static Path freshFolder() {
        try {
            Path folder = Files.createTempDirectory("oak-basket-e2e");
            Runtime.getRuntime().addShutdownHook(new Thread(() -> delete(folder)));
            return folder;
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
    }

    private static void delete(Path folder) {
        try (var all = Files.walk(folder)) {
            all.sorted(java.util.Comparator.reverseOrder()).forEach(path -> path.toFile().delete());
        } catch (IOException leftBehind) {
            System.err.println("Left behind: " + folder);
        }
    }
}
