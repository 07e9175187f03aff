package oakbasket.e2e;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/**
 * The packaged application laid out as Spring Boot's reference describes under "efficient deployments": unpacked, with an archive of the classes it loads.
 * It is the same program and starts with less than half the processor time, which the journeys need some fifteen times over. Made once in a run of tests.
 */
final class QuickStart {

    private static List<String> command = List.of();

    private QuickStart() {
    }

    /** What starts the jar's program, to be followed by the program's own arguments. */
    static synchronized List<String> of(Path jar, List<String> java) {
        if (command.isEmpty()) {
            Path folder = PackagedApp.freshFolder();
            Path unpacked = folder.resolve(jar.getFileName());
            Path classes = folder.resolve("classes.jsa");
            run(List.of(java.get(0), "-Djarmode=tools", "-jar", jar.toString(), "extract", "--force", "--destination", folder.toString()));
            run(with(java, "-XX:ArchiveClassesAtExit=" + classes, "-Dspring.context.exit=onRefresh", "-jar", unpacked.toString(), "--server.port=0", "--oakbasket.data=" + folder.resolve("data")));
            command = with(java, "-XX:SharedArchiveFile=" + classes, "-jar", unpacked.toString());
        }
        return command;
    }

    private static void run(List<String> step) {
        try {
            Path said = Files.createTempFile("oak-basket-quick", ".log");
            int code = new ProcessBuilder(step).redirectErrorStream(true).redirectOutput(said.toFile()).start().waitFor();
            if (code != 0) {
                throw new IllegalStateException(step + " ended with " + code + ":\n" + Files.readString(said));
            }
            Files.delete(said);
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        } catch (InterruptedException stopped) {
            throw new IllegalStateException(stopped);
        }
    }

    private static List<String> with(List<String> java, String... more) {
        List<String> all = new ArrayList<>(java);
        all.addAll(List.of(more));
        return List.copyOf(all);
    }
}
