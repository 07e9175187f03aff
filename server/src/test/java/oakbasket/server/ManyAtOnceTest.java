package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.util.HexFormat;
import java.util.List;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** Many senders at the same moment: nothing is mixed up, overwritten, counted twice or lost. */
class ManyAtOnceTest {

    private static final int SENDERS = 8;
    private static final int FILES = 25;

    @Test
    void filesOfOneNameFromManySendersAllGetAPlaceOfTheirOwn() throws Exception {
        TestRound round = new TestRound();
        round.sheet.put("folderPattern", "{round}").put("namePattern", "{item}{ext}");
        ((ObjectNode) round.sheet.path("items").get(0)).put("maxFiles", 100);
        for (int n = 0; n < SENDERS; n++) {
            round.person("Sender " + n, "sender" + n + "@example.org");
        }
        round.open();
        List<TestRound.Sender> senders = IntStream.range(0, SENDERS).mapToObj(n -> round.personal("Sender " + n).begin()).toList();
        ExecutorService threads = Executors.newFixedThreadPool(SENDERS);
        List<Future<Set<String>>> sent = threads.invokeAll(IntStream.range(0, SENDERS).<Callable<Set<String>>>mapToObj(n -> () -> send(senders.get(n), n)).toList());
        Set<String> hashes = new java.util.HashSet<>();
        for (Future<Set<String>> one : sent) {
            hashes.addAll(one.get());
        }
        threads.shutdown();
        assertThat(hashes).hasSize(SENDERS * FILES);

        Path folder = RunningApp.DATA.resolve("files").resolve(round.title());
        try (Stream<Path> files = Files.list(folder)) {
            Set<String> onDisk = files.map(ManyAtOnceTest::sha256).collect(Collectors.toSet());
            assertThat(onDisk).isEqualTo(hashes);
        }
        Set<String> recorded = new java.util.HashSet<>();
        for (int n = 0; n < SENDERS; n++) {
            for (JsonNode file : round.panel("Sender " + n).path("files")) {
                recorded.add(file.path("sha256").asString());
                assertThat(sha256(RunningApp.DATA.resolve("files").resolve(file.path("path").asString()))).isEqualTo(file.path("sha256").asString());
            }
        }
        assertThat(recorded).isEqualTo(hashes);
        assertThat(round.board().path("counts").path("files").asInt()).isEqualTo(SENDERS * FILES);
        assertThat(round.board().path("counts").path("complete").asInt()).isEqualTo(SENDERS);
    }

    /** Both open a draft of the same version; one wins, the other is told, and there is one set of baskets. */
    @Test
    void twoCoordinatorsWhoOpenTheSameDraftOpenItOnce() throws Exception {
        TestRound round = new TestRound();
        round.begin();
        ExecutorService threads = Executors.newFixedThreadPool(2);
        Http other = Http.freshDesk();
        List<Future<Integer>> answers = threads.invokeAll(Stream.of(round.desk, other)
                .<Callable<Integer>>map(desk -> () -> desk.post("/api/rounds/" + round.id + "/open", "{\"version\":1}").status()).toList());
        threads.shutdown();
        assertThat(List.of(answers.get(0).get(), answers.get(1).get())).containsExactlyInAnyOrder(204, 409);
        assertThat(round.board().path("rows")).hasSize(2);
    }

    private static Set<String> send(TestRound.Sender sender, int number) {
        Set<String> hashes = new java.util.HashSet<>();
        for (int n = 0; n < FILES; n++) {
            byte[] content = TestRound.pdf(number + "/" + n);
            Http.Answer answer = sender.send(1, "scan.pdf", content);
            assertThat(answer.status()).as(answer.text()).isEqualTo(201);
            hashes.add(sha256(content));
        }
        assertThat(sender.finish().json().path("files")).hasSize(FILES);
        return hashes;
    }

    private static String sha256(Path file) {
        try {
            return sha256(Files.readAllBytes(file));
        } catch (java.io.IOException problem) {
            throw new java.io.UncheckedIOException(problem);
        }
    }

    private static String sha256(byte[] content) {
        try {
            return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(content));
        } catch (java.security.NoSuchAlgorithmException impossible) {
            throw new IllegalStateException(impossible);
        }
    }
}
