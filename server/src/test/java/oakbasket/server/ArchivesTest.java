package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** An archive is opened on arrival into files that are judged, filed and counted as if each had been sent by itself. */
class ArchivesTest {

    @TempDir
    Path folder;

    private static TestRound round(String archives, int min, int max, String... kinds) {
        TestRound round = new TestRound().item("Papers", true, min, max, 1, kinds);
        ((ObjectNode) round.sheet.path("items").get(1)).put("archives", archives);
        return round.open();
    }

    private static byte[] pdf(String text) {
        return TestRound.pdf(text);
    }

    private static List<String> names(JsonNode files) {
        List<String> names = new ArrayList<>();
        files.forEach(file -> names.add(file.path("originalName").asString(file.path("name").asString())));
        return names;
    }

    private static List<String> onDisk(TestRound round) throws Exception {
        Path root = RunningApp.DATA.resolve("files").resolve(round.title());
        if (!Files.exists(root)) {
            return List.of();
        }
        try (Stream<Path> all = Files.walk(root)) {
            return all.filter(Files::isRegularFile).map(path -> path.getFileName().toString()).sorted().toList();
        }
    }

    private static byte[] threePapers() {
        return new Zips().with("papers/", new byte[0]).with("papers/one.pdf", pdf("1")).with("papers/sub/two.pdf", pdf("2")).with("drei für Jörg.pdf", pdf("3"))
                .with("__MACOSX/papers/._one.pdf", new byte[] {1}).with("papers/.DS_Store", new byte[] {2}).bytes();
    }

    @Test
    void eachFileCountsByItselfAndTheArchiveDoesNot() throws Exception {
        TestRound round = round("OPENED", 3, 3, "PDF");
        TestRound.Sender ada = round.personal("Ada Brook").begin();
        assertThat(ada.page().json().path("items").get(1).path("opensArchives").asBoolean()).isTrue();
        assertThat(ada.send(2, "papers.zip", threePapers()).status()).isEqualTo(201);
        assertThat(round.standing("Ada Brook", 1)).isEqualTo("ARRIVED");
        assertThat(names(round.panel("Ada Brook").path("files"))).containsExactly("papers/one.pdf", "papers/sub/two.pdf", "drei für Jörg.pdf");
        assertThat(onDisk(round)).hasSize(3).allMatch(name -> name.endsWith(".pdf"));
        JsonNode receipt = ada.finish().json().path("files");
        assertThat(names(receipt)).containsExactly("papers/one.pdf", "papers/sub/two.pdf", "drei für Jörg.pdf");
        assertThat(receipt.toString()).contains(Http.sha256(pdf("2")));
    }

    @Test
    void anArchiveThatIsKeptLiesBesideItsFilesAndCountsForNothing() throws Exception {
        TestRound round = round("OPENED_AND_KEPT", 3, 3, "PDF");
        TestRound.Sender ada = round.personal("Ada Brook").begin();
        byte[] archive = threePapers();
        String location = ada.create(2, "papers.zip", archive.length).header("Location");
        assertThat(ada.patch(location, 0, archive).status()).as("in two requests, too").isEqualTo(204);
        JsonNode files = round.panel("Ada Brook").path("files");
        assertThat(files).hasSize(4);
        assertThat(files.get(3).path("opened").asBoolean()).isTrue();
        assertThat(RunningApp.DATA.resolve("files").resolve(files.get(3).path("path").asString())).hasBinaryContent(archive);
        assertThat(round.row("Ada Brook").path("files").asInt()).isEqualTo(3);
        assertThat(round.desk.get("/api/rounds/" + round.id + "/to-check").json().path("files")).as("nobody has to look at it").hasSize(3);
        assertThat(ada.send(2, "fourth.pdf", pdf("4")).problem()).as("three are three").isEqualTo("too-many-files");
        assertThat(ada.finish().json().path("files")).as("and it is on the receipt").hasSize(4);
    }

    @Test
    void whatCannotBeTakenIsNamedAndOnlyItNeedsToBeSentAgain() throws Exception {
        TestRound round = round("OPENED", 1, 5, "PDF");
        TestRound.Sender ada = round.personal("Ada Brook").begin();
        Http.Answer partly = ada.send(2, "mixed.zip", new Zips().with("good.pdf", pdf("good")).with("tool.exe", new byte[] {'M', 'Z', 0, 0}).with("../../escape.pdf", pdf("out"))
                .with("photo.pdf", "\u0089PNG\r\n\u001a\n....".getBytes(StandardCharsets.ISO_8859_1)).with("also good.pdf", pdf("also")).bytes());
        assertThat(partly.status()).isEqualTo(422);
        assertThat(partly.problem()).isEqualTo("archive-partly");
        assertThat(partly.json().path("detail").asString()).startsWith("From “mixed.zip”, 2 files were received and 3 were not: ").contains("tool.exe (Programs are not taken)",
                "escape.pdf (it lies outside the archive", "photo.pdf (The file is not what its name says)");
        assertThat(names(round.panel("Ada Brook").path("files"))).containsExactly("good.pdf", "also good.pdf");

        assertThat(ada.send(2, "mended.zip", new Zips().with("good.pdf", pdf("good")).with("also good.pdf", pdf("also")).with("photo.pdf", pdf("photo")).bytes()).status()).isEqualTo(201);
        assertThat(names(round.panel("Ada Brook").path("files"))).as("what was there came once").containsExactly("good.pdf", "also good.pdf", "photo.pdf");
        assertThat(ada.finish().json().path("files")).hasSize(3);
        assertThat(onDisk(round)).hasSize(3);
        assertThat(Files.exists(RunningApp.DATA.resolve("escape.pdf")) || Files.exists(RunningApp.DATA.resolve("files/escape.pdf"))).isFalse();
    }

    @Test
    void theItemsLimitHoldsForWhatComesOut() {
        TestRound round = round("OPENED", 1, 3, "PDF");
        TestRound.Sender ada = round.personal("Ada Brook").begin();
        Zips five = new Zips();
        for (int n = 0; n < 5; n++) {
            five.with(n + ".pdf", pdf("page " + n));
        }
        Http.Answer partly = ada.send(2, "five.zip", five.bytes());
        assertThat(partly.json().path("detail").asString()).contains("3 files were received and 2 were not").contains("4.pdf (Too many files)");
        assertThat(round.row("Ada Brook").path("files").asInt()).isEqualTo(3);
    }

    @Test
    void anItemThatDoesNotOpenArchivesTakesThemAsTheyAre() {
        TestRound any = round("AS_SENT", 1, 3, "ARCHIVE");
        TestRound.Sender ada = any.personal("Ada Brook").begin();
        assertThat(ada.send(2, "papers.zip", threePapers()).status()).isEqualTo(201);
        assertThat(names(any.panel("Ada Brook").path("files"))).containsExactly("papers.zip");
        assertThat(any.panel("Ada Brook").path("files").get(0).path("opened").asBoolean()).isFalse();
        TestRound pdfs = round("AS_SENT", 1, 3, "PDF");
        assertThat(pdfs.personal("Ada Brook").begin().send(2, "papers.zip", threePapers()).problem()).isEqualTo("kind-not-wanted");
    }

    /** Forms of hostile archives: D. Fifield, "A better zip bomb" (WOOT 2019); OWASP File Upload Cheat Sheet; the password is set by Debian's 7z. */
    @Test
    void hostileArchivesAreRefusedAndLeaveNothingBehind() throws Exception {
        TestRound round = round("OPENED", 1, 5_000);
        TestRound.Sender ada = round.personal("Ada Brook").begin();

        List<Path> before = arriving();
        byte[] zeros = "0".repeat(900_000).getBytes(StandardCharsets.US_ASCII);
        Zips bomb = new Zips();
        for (int n = 0; n < 40; n++) {
            bomb.with("zeros " + n + ".txt", zeros);
        }
        Http.Answer refused = ada.send(2, "bomb.zip", bomb.bytes());
        assertThat(refused.problem()).as("36 MB out of 36 KB").isEqualTo("archive-partly");
        assertThat(refused.json().path("detail").asString()).contains("there is too much in the archive").contains("and 2");
        long taken = round.row("Ada Brook").path("files").asLong();
        assertThat(taken).as("200 times the archive and no more").isBetween(1L, 12L);

        Zips many = new Zips();
        for (int n = 0; n < 5_001; n++) {
            many.with("d" + n + "/", new byte[0]);
        }
        assertThat(ada.send(2, "many.zip", many.bytes()).problem()).isEqualTo("archive-unreadable");
        assertThat(ada.send(2, "nothing.zip", new Zips().with("folder/", new byte[0]).bytes()).problem()).isEqualTo("archive-empty");

        byte[] random = new byte[2_000];
        new Random(7).nextBytes(random);
        byte[] damaged = new Zips().with("damaged.bin", random).bytes();
        damaged[200] ^= 1;
        Http.Answer broken = ada.send(2, "damaged.zip", damaged);
        assertThat(broken.problem()).isEqualTo("archive-nothing");
        assertThat(broken.json().path("detail").asString()).contains("damaged.bin (it is damaged or has a password)");
        byte[] cut = java.util.Arrays.copyOf(damaged, 1_500);
        assertThat(ada.send(2, "cut.zip", cut).status()).as("half of one is none").isEqualTo(422);

        Path plain = Files.write(folder.resolve("secret.txt"), random);
        Path locked = folder.resolve("locked.zip");
        Process packing = new ProcessBuilder("7z", "a", "-psecret", locked.toString(), plain.toString()).redirectOutput(ProcessBuilder.Redirect.DISCARD).start();
        assertThat(packing.waitFor()).isZero();
        assertThat(ada.send(2, "locked.zip", Files.readAllBytes(locked)).problem()).isEqualTo("archive-unreadable");

        byte[] lying = new Zips().with("lying.txt", "the whole truth".repeat(100).getBytes(StandardCharsets.US_ASCII)).bytes();
        int size = lying.length - 22;
        while (!(lying[size] == 'P' && lying[size + 1] == 'K' && lying[size + 2] == 1)) {
            size--;
        }
        lying[size + 24] = 5;
        lying[size + 25] = 0;
        assertThat(ada.send(2, "lying.zip", lying).json().path("detail").asString()).as("says 5 bytes, holds 1,500").contains("lying.txt (it is damaged");

        assertThat(round.row("Ada Brook").path("files").asLong()).isEqualTo(taken);
        assertThat(arriving()).as("nothing half unpacked").isEqualTo(before);
    }

    private static List<Path> arriving() throws Exception {
        try (Stream<Path> parts = Files.list(RunningApp.DATA.resolve("incoming"))) {
            return parts.filter(part -> part.toString().endsWith(".part")).sorted().toList();
        }
    }

    /** As Windows' own tools and old ones write them: names in IBM 437 (PKWARE APPNOTE, appendix D), folders parted by backslashes. */
    @Test
    void oldNamesAreRead() throws Exception {
        TestRound round = round("OPENED", 1, 5, "PDF");
        TestRound.Sender ada = round.personal("Ada Brook").begin();
        byte[] archive = new Zips().with("m?rz\\plan.pdf", pdf("old")).bytes();
        for (int at = 0; at < archive.length - 1; at++) {
            if (archive[at] == 'm' && archive[at + 1] == '?') {
                archive[at + 1] = (byte) 0x84;
            }
            if (archive[at] == 'P' && archive[at + 1] == 'K' && (archive[at + 2] == 1 || archive[at + 2] == 3)) {
                archive[at + (archive[at + 2] == 1 ? 9 : 7)] &= ~8;
            }
        }
        Http.Answer sent = ada.send(2, "old.zip", archive);
        assertThat(sent.status()).as(sent.text()).isEqualTo(201);
        assertThat(names(round.panel("Ada Brook").path("files"))).containsExactly("märz/plan.pdf");
    }
}
