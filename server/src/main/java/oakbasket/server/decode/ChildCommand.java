package oakbasket.server.decode;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;

/**
 * How a child is started: a small heap, one processor, behind everything else in the queue for it; and, where the system has the programs for it and lets us, without any network and with bounds of the system's own on time,
 * memory and what it writes.
 */
final class ChildCommand {

    /** Of processor time, over the whole life of a child. */
    private static final Duration LIFE = Duration.ofMinutes(5);
    private static final long MOST_MEMORY_BYTES = 1L << 30;
    private static final long MOST_WRITTEN_BYTES = 512L << 20;
    private static final int FIRST_ASKED_ABOUT_MANAGERS = 18;
    private static final int LAST_WITH_MANAGERS = 23;
    private static final int TRIED_SECONDS = 5;
    private static final List<String> LAST_IN_LINE = List.of("nice", "-n", "5");
    private static final List<String> WITHOUT_NETWORK = List.of("unshare", "--user", "--map-current-user", "--net");
    private static final List<String> BOUNDED = List.of("prlimit", "--core=0", "--cpu=" + LIFE.toSeconds(), "--data=" + MOST_MEMORY_BYTES, "--fsize=" + MOST_WRITTEN_BYTES);
    private static final List<String> JAVA = List.of("-Xmx256m", "-Xms16m", "-Xss1m", "-XX:+UseSerialGC", "-XX:TieredStopAtLevel=1", "-XX:ActiveProcessorCount=1", "-XX:MaxMetaspaceSize=96m", "-XX:CompressedClassSpaceSize=32m",
            "-XX:ReservedCodeCacheSize=48m", "-XX:MaxDirectMemorySize=64m", "-XX:MinHeapFreeRatio=10", "-XX:MaxHeapFreeRatio=30", "-XX:-UsePerfData", "-XX:+ExitOnOutOfMemoryError", "-Djava.awt.headless=true", "-Dfile.encoding=UTF-8",
            "-Dslf4j.provider=org.slf4j.helpers.NOP_FallbackServiceProvider", "-Dlog4j2.loggerContextFactory=org.apache.logging.log4j.simple.SimpleLoggerContextFactory");

    private final List<String> before;
    private final String classpath;

    private ChildCommand(List<String> before, String classpath) {
        this.before = before;
        this.classpath = classpath;
    }

    /** Tries which of the system's fences are there. */
    static ChildCommand found(String classpath) {
        List<String> before = new ArrayList<>();
        for (List<String> fence : List.of(LAST_IN_LINE, BOUNDED, WITHOUT_NETWORK)) {
            List<String> tried = new ArrayList<>(before);
            tried.addAll(fence);
            if (works(tried)) {
                before = tried;
            }
        }
        return new ChildCommand(List.copyOf(before), classpath);
    }

    private static boolean works(List<String> fences) {
        List<String> command = new ArrayList<>(fences);
        command.add("true");
        try {
            Process process = new ProcessBuilder(command).redirectErrorStream(true).redirectOutput(ProcessBuilder.Redirect.DISCARD).start();
            return process.waitFor(TRIED_SECONDS, TimeUnit.SECONDS) && process.exitValue() == 0;
        } catch (IOException notThere) {
            return false;
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
            return false;
        }
    }

    /** Whether children are started without network by the system itself. */
    boolean withoutNetwork() {
        return before.containsAll(WITHOUT_NETWORK);
    }

    /**
     * Starts a child.
     *
     * @param scratch the folder it may write to
     * @param most how long it may take for one file
     */
    Process start(Path scratch, Duration most) throws IOException {
        List<String> command = new ArrayList<>(before);
        command.add(Path.of(System.getProperty("java.home"), "bin", "java").toString());
        command.addAll(JAVA);
        int feature = Runtime.version().feature();
        if (feature >= FIRST_ASKED_ABOUT_MANAGERS && feature <= LAST_WITH_MANAGERS) {
            command.add("-Djava.security.manager=allow");
        }
        command.add("-Djava.io.tmpdir=" + scratch.toAbsolutePath());
        command.add("-Duser.home=" + scratch.toAbsolutePath());
        command.add("-cp");
        command.add(classpath);
        command.add(ChildMain.class.getName());
        command.add(String.valueOf(most.toMillis()));
        command.add(scratch.toAbsolutePath().toString());
        ProcessBuilder builder = new ProcessBuilder(command).redirectError(ProcessBuilder.Redirect.DISCARD);
        String path = String.valueOf(System.getenv("PATH"));
        builder.environment().clear();
        builder.environment().put("PATH", path);
        builder.environment().put("LANG", "C.UTF-8");
        builder.environment().put("HOME", scratch.toAbsolutePath().toString());
        return builder.directory(scratch.toFile()).start();
    }
}
