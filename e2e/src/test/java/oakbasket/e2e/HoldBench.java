package oakbasket.e2e;

import java.nio.file.Path;
import java.time.Duration;
import java.util.List;

/** Prints how a server with 256 MiB holds under connections that are in the way: this product, and whatever other jar is named. Run by bench/hold.sh. */
final class HoldBench {

    /** One thing tried, and what it is tried with. */
    private record Trial(String name, int count, Siege.Kind kind) {
    }

    private HoldBench() {
    }

    public static void main(String[] arguments) {
        for (String jar : System.getenv().getOrDefault("HOLD_JARS", "../server/target/oak-basket-app.jar").split(",")) {
            for (String flags : System.getenv().getOrDefault("HOLD_FLAGS", "").split("\\|")) {
                String path = jar.contains("plain") ? "/large" : largestAsset(jar);
                trials(jar, flags, path);
            }
        }
    }

    private static void trials(String jar, String flags, String large) {
        String post = jar.contains("plain") ? "/echo" : "/api/session";
        String page = jar.contains("plain") ? "/" : "/sign-in";
        List<List<Trial>> all = List.of(List.of(new Trial("10,000 idle", 10_000, Siege.Kind.idle())),
                List.of(new Trial("10,000 half-sent", 10_000, Siege.Kind.halfSent())),
                List.of(new Trial("500 slow bodies", 500, Siege.Kind.slowBody(post))),
                List.of(new Trial("500 slow readers", 500, Siege.Kind.slowReader(large))),
                List.of(new Trial("3,000 half-sent", 3_000, Siege.Kind.halfSent()), new Trial("500 slow bodies", 500, Siege.Kind.slowBody(post)),
                        new Trial("500 slow readers", 500, Siege.Kind.slowReader(large))));
        String wanted = System.getenv().getOrDefault("HOLD_TRIALS", "");
        for (List<Trial> trial : all.stream().filter(trials -> trials.stream().anyMatch(one -> one.name().contains(wanted))).toList()) {
            try (PackagedApp app = PackagedApp.of(Path.of(jar), PackagedApp.freshFolder(), flags.isEmpty() ? new String[0] : flags.split(" "))) {
                HonestCaller.call("127.0.0.2", app.port, page, 50);
                List<Siege> sieges = trial.stream().map(t -> Siege.of("127.0.0.1", app.port, t.count(), t.kind())).toList();
                pause(Duration.ofSeconds(3));
                double during = HonestCaller.percentile95(HonestCaller.call("127.0.0.2", app.port, page, 20));
                int alive = sieges.stream().mapToInt(Siege::alive).sum();
                long memory = app.residentMebibytes();
                sieges.forEach(Siege::close);
                pause(Duration.ofSeconds(10));
                double after = HonestCaller.percentile95(HonestCaller.call("127.0.0.2", app.port, page, 20));
                System.out.println(String.format("%-28s %-40s %-60s held %5d  p95 during %8.0f ms  after %6.0f ms  %4d MiB  %s", Path.of(jar).getFileName(), flags,
                        String.join(" + ", trial.stream().map(Trial::name).toList()), alive, during, after, memory, app.alive() ? "lives" : "DIED"));
            }
        }
    }

    /** The largest part of the desk, by what its page asks for. */
    static String largestAsset(String jar) {
        try (var file = new java.util.zip.ZipFile(jar)) {
            return file.stream().filter(entry -> entry.getName().contains("static/assets/") && entry.getName().endsWith("js"))
                    .max(java.util.Comparator.comparingLong(java.util.zip.ZipEntry::getSize)).map(entry -> entry.getName().replaceAll(".*static", "")).orElseThrow();
        } catch (java.io.IOException problem) {
            throw new java.io.UncheckedIOException(problem);
        }
    }

    private static void pause(Duration time) {
        try {
            Thread.sleep(time.toMillis());
        } catch (InterruptedException stopped) {
            throw new IllegalStateException(stopped);
        }
    }
}
