package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.Stream;
import oakbasket.server.filing.Deliveries;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** Files go where rules say, into any root, with the reason written down; rules are tried before they move anything, and what they did is taken back. */
class FilingTest {

    /** Another disk than that of the data on the machines this runs on, so that moves copy, verify and remove. */
    private static final Path OTHER_DISK = Path.of("/dev/shm");
    private static final byte[] PDF = "%PDF-1.4\n%%EOF\n".getBytes(StandardCharsets.US_ASCII);

    private final Http desk = Http.desk();
    private final TestRound round = new TestRound().item("Field map", true, 1, 90, 1).open();
    private final ArrayNode rules = Http.JSON.createArrayNode();
    private final Path files = RunningApp.DATA.resolve("files");

    private ObjectNode rule(String name, String subject, String test, String value) {
        ObjectNode rule = rules.addObject().put("name", name);
        rule.putArray("conditions").addObject().put("subject", subject).put("test", test).put("value", value);
        return rule;
    }

    private Http.Answer keep() {
        int version = desk.get("/api/rules/" + round.id).json().path("version").asInt();
        ObjectNode body = Http.JSON.createObjectNode().put("version", version);
        body.set("rules", rules);
        return desk.put("/api/rules/" + round.id, body.toString());
    }

    private static ObjectNode place(ObjectNode rule, long root, String folder, String name) {
        rule.putObject("place").put("root", root).put("folder", folder).put("name", name);
        return rule;
    }

    private TestRound.Sender send(String person, int item, String name, byte[] content) {
        TestRound.Sender sender = round.personal(person).begin();
        assertThat(sender.send(item, name, content).status()).isEqualTo(201);
        sender.finish();
        return sender;
    }

    private List<String> lying(Path folder) {
        if (!Files.isDirectory(folder)) {
            return List.of();
        }
        try (Stream<Path> all = Files.walk(folder)) {
            return all.filter(Files::isRegularFile).map(path -> folder.relativize(path).toString()).filter(path -> !path.substring(path.lastIndexOf('/') + 1).startsWith(".oak")).sorted().toList();
        } catch (IOException problem) {
            return List.of("being changed");
        }
    }

    private List<String> lyingIn(String folder) {
        return lying(files.resolve(round.title()).resolve(folder));
    }

    private long root(Path folder) {
        Http.Answer added = desk.post("/api/roots", Http.JSON.createObjectNode().put("name", "Root " + folder.getFileName()).put("path", folder.toString()).toString());
        assertThat(added.status()).as(added.text()).isEqualTo(201);
        return added.json().path("id").asLong();
    }

    private List<JsonNode> journal() {
        List<JsonNode> lines = new ArrayList<>();
        desk.get("/api/journal?round=" + round.id).json().path("lines").forEach(lines::add);
        return lines;
    }

    private JsonNode trial() {
        return desk.post("/api/refilings/trial", "{\"roundId\":" + round.id + ",\"rules\":" + rules + "}").json();
    }

    private Http.Answer apply(JsonNode trial) {
        return desk.post("/api/refilings", "{\"roundId\":" + round.id + ",\"last\":" + trial.path("last") + ",\"seal\":" + trial.path("seal") + "}");
    }

    private JsonNode ended(Http.Answer begun) {
        assertThat(begun.status()).as(begun.text()).isEqualTo(200);
        long id = begun.json().path("id").asLong();
        return Waiting.until(() -> desk.get("/api/refilings/" + id).json(), view -> !view.path("refiling").path("endedAt").isNull());
    }

    @Test
    void aFileGoesToAnotherDiskIsCopiedMarkedAndToldOf() throws Exception {
        Path share = Files.createTempDirectory(OTHER_DISK, "oak-share");
        long root = root(share);
        place(rule("Maps", "ITEM", "IS", "field MAP"), root, "{round}/Maps/<{group}>", "{last}, {first}");
        ObjectNode also = rule("Everything", "NAME", "ENDS", ".pdf").put("also", true).put("mark", "paper").put("tell", "ben@example.org");
        also.putArray("copies").addObject().put("folder", "{round}/Copies").put("name", "");
        assertThat(keep().status()).isEqualTo(200);

        send("Ada Brook", 2, "scan.pdf", PDF);
        Waiting.until(() -> lying(share), there -> there.equals(List.of(round.title() + "/Maps/Brook, Ada.pdf")));
        Waiting.until(() -> lyingIn("Copies"), there -> there.equals(List.of("Ada Brook - Field map.pdf")));
        assertThat(Files.readAllBytes(share.resolve(round.title() + "/Maps/Brook, Ada.pdf"))).isEqualTo(PDF);
        assertThat(lyingIn("Ada Brook")).isEmpty();
        Waiting.until(this::journal, lines -> lines.size() == 3);
        JsonNode moved = journal().stream().filter(line -> line.path("act").asString().equals("MOVED")).findFirst().orElseThrow();
        assertThat(moved.path("to").asString()).isEqualTo("Root " + share.getFileName() + "/" + round.title() + "/Maps/Brook, Ada.pdf");
        assertThat(moved.path("why").asString()).isEqualTo("Placed by rule 1 of this round (“Maps”): item is field MAP");
        Waiting.until(() -> lying(RunningApp.DATA.resolve("outbox")), letters -> letters.stream().anyMatch(letter -> text(RunningApp.DATA.resolve("outbox").resolve(letter)).contains(round.title())
                && text(RunningApp.DATA.resolve("outbox").resolve(letter)).contains("ben@example.org")));
        assertThat(desk.get("/api/journal.csv?round=" + round.id).text()).contains("Brook, Ada.pdf", "Placed by rule 1 of this round");
        assertThat(desk.send("DELETE", "/api/roots/" + root, null).problem()).isEqualTo("root-used");
        assertThat(desk.get("/api/files/" + moved.path("file")).response().body()).as("it can be taken from there").isEqualTo(PDF);
    }

    private static String text(Path file) {
        try {
            return Files.readString(file, StandardCharsets.ISO_8859_1);
        } catch (IOException problem) {
            return "";
        }
    }

    @Test
    void aRootThatIsAwayKeepsNobodyFromSendingAndGetsItsFilesWhenItIsBack() throws Exception {
        Path share = Files.createTempDirectory("oak-away");
        long root = root(share);
        place(rule("", "ITEM", "IS", "Field map"), root, "{person}", "");
        keep();
        Path gone = share.resolveSibling(share.getFileName() + "-gone");
        Files.move(share, gone);
        // What a share leaves behind that is not mounted.
        Files.createDirectory(share);
        send("Ada Brook", 2, "a.pdf", PDF);
        RunningApp.bean(Deliveries.class).wake();
        assertThat(Waiting.until(() -> desk.get("/api/today").json().path("needsYou").toString(), needs -> needs.contains("root-away") && needs.contains("waiting"))).contains("Root " + share.getFileName());
        assertThat(lying(share)).as("nothing is written where the share is not").isEmpty();
        assertThat(round.panel("Ada Brook").path("files").get(0).path("path").asString()).startsWith("Waiting for their folder/");
        Files.delete(share);
        Files.move(gone, share);
        Waiting.until(() -> {
            RunningApp.bean(Deliveries.class).wake();
            return lying(share);
        }, there -> there.equals(List.of("Ada Brook/Ada Brook - Field map.pdf")));
    }

    @ParameterizedTest(name = "{0}")
    @CsvSource({"the disk is full", "the root is gone"})
    void whatHappensInTheMiddleOfABatchLosesNothingAndItCanBeDoneAgain(String what) throws Exception {
        int count = 12;
        TestRound.Sender ada = round.personal("Ada Brook").begin();
        for (int n = 0; n < count; n++) {
            assertThat(ada.send(2, "map " + n + ".txt", ("map " + n + " of " + round.id).getBytes(StandardCharsets.UTF_8)).status()).isEqualTo(201);
        }
        ada.finish();
        Path share = Files.createTempDirectory(OTHER_DISK, "oak-middle");
        Path gone = share.resolveSibling(share.getFileName() + "-gone");
        long root = root(share);
        place(rule("", "ITEM", "IS", "Field map"), root, "{person}", "{original}");
        JsonNode shown = trial();
        assertThat(shown.path("moves").asInt()).isEqualTo(count);
        keep();
        AtomicInteger placed = new AtomicInteger();
        RunningApp.DISK.before(path -> {
            if (path.startsWith(share) && placed.incrementAndGet() > count / 3) {
                if (what.equals("the root is gone") && Files.exists(share)) {
                    Files.move(share, gone);
                }
                throw new IOException("No space left on device");
            }
        });
        JsonNode ended;
        try {
            ended = ended(apply(shown));
        } finally {
            RunningApp.DISK.mend();
        }
        assertThat(ended.path("refiling").path("failed").asInt()).isBetween(1, count);
        assertThat(ended.path("stayed").toString()).contains("The disk did not take it");
        if (Files.exists(gone)) {
            Files.move(gone, share);
        }
        List<String> there = Waiting.until(() -> {
            RunningApp.bean(Deliveries.class).wake();
            return contents(share);
        }, contents -> contents.size() == count);
        assertThat(there).as("each exactly once").doesNotHaveDuplicates();
        JsonNode again = trial();
        assertThat(again.path("moves").asInt()).isEqualTo(ended.path("refiling").path("failed").asInt());
        assertThat(ended(apply(again)).path("refiling").path("failed").asInt()).isZero();
        assertThat(lying(share)).hasSize(count);
        assertThat(contents(share)).hasSize(count).doesNotHaveDuplicates();

        Path unfinished = share.resolve("Ada Brook/.oak-copy-of-a-crash");
        Files.writeString(unfinished, "half of it");
        desk.post("/api/findings/look", "");
        assertThat(unfinished).as("it may still be being written").exists();
        Files.setLastModifiedTime(unfinished, FileTime.from(Instant.now().minus(Duration.ofHours(2))));
        desk.post("/api/findings/look", "");
        assertThat(unfinished).doesNotExist();
    }

    /** What all files of the round hold, those in a root and those in the round's own folder. */
    private List<String> contents(Path root) {
        return Stream.of(root, files.resolve(round.title())).flatMap(folder -> lying(folder).stream().map(path -> text(folder.resolve(path)))).toList();
    }

    @ParameterizedTest(name = "{0}")
    @CsvSource({"a link that leads out", "a file in the way"})
    void whatCannotLieWhereItShouldWaitsAndTheSenderIsNotTroubled(String what) throws Exception {
        place(rule("", "ITEM", "IS", "Field map"), 0, round.title() + " apart/in/it", "");
        keep();
        Path apart = files.resolve(round.title() + " apart");
        Path outside = Files.createTempDirectory("oak-outside");
        if (what.startsWith("a link")) {
            Files.createSymbolicLink(apart, outside);
        } else {
            Files.writeString(apart, "a file");
        }
        send("Ada Brook", 2, "a.pdf", PDF);
        assertThat(lying(outside)).isEmpty();
        assertThat(round.panel("Ada Brook").path("files").get(0).path("path").asString()).startsWith("Waiting for their folder/");
        assertThat(trial().path("unreachable").asInt()).isEqualTo(1);
        Files.delete(apart);
        Waiting.until(() -> {
            RunningApp.bean(Deliveries.class).wake();
            return lying(apart);
        }, there -> there.equals(List.of("in/it/Ada Brook - Field map.pdf")));
    }

    /** What is wrong with a rule is told at its place, also where it is only tried. */
    @Test
    void aTrialOfAFaultyConditionIsRefusedInWords() {
        round.open();
        for (String value : List.of("(", "[a-", "a{99999}", "*")) {
            String rules = "[{\"name\":\"\",\"active\":true,\"join\":\"ALL\",\"conditions\":[{\"subject\":\"NAME\",\"test\":\"MATCHES\",\"value\":\"" + value + "\"}],\"place\":{\"root\":0,\"folder\":\"{round}\",\"name\":\"\"},\"copies\":[],\"mark\":\"\",\"tell\":\"\"}]";
            Http.Answer refused = desk.post("/api/refilings/trial", "{\"roundId\":" + round.id + ",\"rules\":" + rules + "}");
            assertThat(refused.status()).as(value + refused.text()).isEqualTo(422);
            assertThat(refused.json().path("errors").isEmpty()).as(refused.text()).isFalse();
        }
    }

    @Test
    void rulesAreTriedPutToWhatIsHereAndTakenBack() {
        for (String person : List.of("Ada Brook", "Ben Reed")) {
            send(person, 2, "one.txt", person.getBytes(StandardCharsets.UTF_8));
            send(person, 2, "two.txt", (person + " 2").getBytes(StandardCharsets.UTF_8));
        }
        send("Ada Brook", 1, "consent.pdf", PDF);
        List<String> before = lying(files.resolve(round.title()));
        place(rule("Maps", "ITEM", "IS", "Field map"), 0, "{round}/All maps", "map").putArray("copies").addObject().put("folder", "{round}/Twice").put("name", "");
        place(((ObjectNode) rules.get(0)), 0, "{round}/All maps", "map {item}");
        JsonNode trial = trial();
        assertThat(lying(files.resolve(round.title()))).as("a trial moves nothing").isEqualTo(before);
        assertThat(trial.path("moves").asInt()).isEqualTo(4);
        assertThat(trial.path("unchanged").asInt()).isEqualTo(1);
        assertThat(trial.path("clashes").asInt()).isEqualTo(3);
        assertThat(trial.path("copies").asInt()).isEqualTo(4);
        assertThat(trial.path("folders").toString()).contains("{\"folder\":\"" + round.title() + "/All maps\",\"before\":0,\"after\":4}");
        assertThat(apply(trial).problem()).as("not yet the rules in force").isEqualTo("trial-outdated");
        assertThat(keep().status()).isEqualTo(200);
        assertThat(lying(files.resolve(round.title()))).as("kept for new arrivals alone").isEqualTo(before);

        JsonNode done = ended(apply(trial()));
        assertThat(done.path("refiling").path("done").asInt()).isEqualTo(4);
        assertThat(lyingIn("All maps")).containsExactly("map Field map (2).txt", "map Field map (3).txt", "map Field map (4).txt", "map Field map.txt");
        Waiting.until(() -> lyingIn("Twice"), copies -> copies.size() == 4);
        assertThat(trial().path("moves").asInt()).as("applying twice changes nothing").isZero();

        long id = done.path("refiling").path("id").asLong();
        JsonNode undone = ended(desk.post("/api/refilings/" + id + "/undo", ""));
        assertThat(undone.path("refiling").path("done").asInt()).isEqualTo(4);
        assertThat(lying(files.resolve(round.title()))).isEqualTo(before);
        assertThat(desk.post("/api/refilings/" + id + "/undo", "").problem()).isEqualTo("undone-already");
        assertThat(journal()).filteredOn(line -> line.path("act").asString().equals("MOVED")).hasSize(8);
    }

    @Test
    void oneStepIsTakenBackWhereThingsAreStillAsItLeftThem() throws Exception {
        send("Ada Brook", 2, "a.txt", "one".getBytes(StandardCharsets.UTF_8));
        place(rule("", "ITEM", "IS", "Field map"), 0, "{round}/Maps", "");
        keep();
        ended(apply(trial()));
        long moved = journal().get(0).path("id").asLong();
        Path before = files.resolve(round.title()).resolve("Ada Brook/Ada Brook - Field map.txt");
        Files.writeString(before, "somebody else's");
        assertThat(desk.post("/api/journal/" + moved + "/undo", "").problem()).isEqualTo("undo-taken");
        assertThat(before).hasContent("somebody else's");
        Files.delete(before);
        assertThat(desk.post("/api/journal/" + moved + "/undo", "").status()).isEqualTo(204);
        assertThat(before).exists();
        assertThat(desk.post("/api/journal/" + moved + "/undo", "").problem()).isEqualTo("undone-already");
        assertThat(desk.post("/api/journal/" + journal().get(2).path("id") + "/undo", "").problem()).as("the first placement").isEqualTo("undo-never");
        assertThat(journal().get(0).path("why").asString()).isEqualTo("Taken back");
    }

    @Test
    void rulesHaveVersionsAndTellWhatIsWrong() {
        place(rule("", "ITEM", "IS", "Field map"), 0, "x".repeat(10_000), "");
        place(rule("", "NAME", "MATCHES", "(a"), 9_999, "{nobody}", "");
        Http.Answer refused = keep();
        assertThat(refused.status()).isEqualTo(422);
        assertThat(refused.at("rules[0].place.folder")).contains("300");
        assertThat(refused.at("rules[1].conditions[0].value")).contains("regular expression");
        assertThat(refused.at("rules[1].place.root")).isNotEmpty();
        rules.removeAll();
        place(rule("First", "ITEM", "CONTAINS", "map"), 0, "A", "");
        place(rule("Second", "ITEM", "IS", "Field map"), 0, "B", "");
        Http.Answer kept = keep();
        assertThat(kept.json().path("idle").toString()).contains("\"number\":2,\"shadowedBy\":1");
        assertThat(desk.put("/api/rules/" + round.id, "{\"version\":0,\"rules\":[]}").problem()).isEqualTo("changed-elsewhere");
        Http.Answer back = desk.post("/api/rules/" + round.id + "/back", "{\"version\":1,\"to\":0}");
        assertThat(back.json().path("rules")).isEmpty();
        assertThat(back.json().path("version").asInt()).isEqualTo(2);
    }

    @Test
    void theOfficesRulesComeAfterTheRounds() {
        JsonNode office = desk.get("/api/rules/0").json();
        ObjectNode all = Http.JSON.createObjectNode().put("version", office.path("version").asInt());
        place(rule("", "ROUND", "IS", round.title()), 0, "{round}/Office", "");
        all.set("rules", rules.deepCopy());
        assertThat(desk.put("/api/rules/0", all.toString()).status()).isEqualTo(200);
        rules.removeAll();
        place(rule("", "PERSON", "IS", "Ada Brook"), 0, "{round}/Own", "");
        keep();
        send("Ada Brook", 2, "a.txt", "one".getBytes(StandardCharsets.UTF_8));
        send("Ben Reed", 2, "a.txt", "two".getBytes(StandardCharsets.UTF_8));
        assertThat(lyingIn("Own")).containsExactly("Ada Brook - Field map.txt");
        assertThat(lyingIn("Office")).containsExactly("Ben Reed - Field map.txt");
        assertThat(desk.put("/api/rules/0", "{\"version\":" + (office.path("version").asInt() + 1) + ",\"rules\":[]}").status()).isEqualTo(200);
    }

    @ParameterizedTest(name = "{0} at {1}: {2}")
    @CsvSource({"'',/tmp,name", "a/b,/tmp,name", "x,relative/path,path", "x,/no/such/folder,path", "x,/etc/hostname,path", "x,DATA,path", "x,/,path", "x,\"\",path"})
    void aFolderThatCannotBeARootIsRefusedAtItsField(String name, String path, String field) {
        Http.Answer refused = desk.post("/api/roots", Http.JSON.createObjectNode().put("name", name).put("path", path.replace("DATA", RunningApp.DATA.toString())).toString());
        assertThat(refused.status()).isEqualTo(422);
        assertThat(refused.at(field)).isNotEmpty();
    }

    @Test
    void patternsAreShownWithAwkwardFiles() {
        JsonNode shown = desk.post("/api/patterns/example", "{\"folderPattern\":\"{round}/<{group}>/{last}\",\"namePattern\":\"{original}\",\"roundId\":" + round.id + "}").json();
        List<String> paths = new ArrayList<>();
        shown.path("examples").forEach(one -> paths.add(one.path("what").asString() + " " + one.path("path").asString()));
        assertThat(paths).hasSize(5);
        assertThat(paths.get(0)).startsWith("plain " + round.title() + "/Brook/");
        assertThat(paths.get(1)).endsWith(" (2).pdf");
        assertThat(paths.get(2).substring(paths.get(2).lastIndexOf('/') + 1)).hasSizeLessThanOrEqualTo(255).endsWith(".pdf");
        assertThat(paths.get(3)).contains("\u041a\u043e\u0432\u0430\u043b\u044c");
        assertThat(desk.post("/api/patterns/example", "{\"folderPattern\":\"<{group}>\",\"namePattern\":\"a\"}").json().path("errors")).hasSize(2);
        assertThat(desk.get("/api/patterns/fields").json().size()).isEqualTo(17);
    }
}
