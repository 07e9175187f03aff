package oakbasket.server.upload;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.security.MessageDigest;
import java.time.Clock;
import java.time.Instant;
import java.util.HexFormat;
import java.util.List;
import java.util.stream.Stream;
import oakbasket.core.compose.RoundSheet;
import oakbasket.core.compose.RoundSheetBuilder;
import oakbasket.core.identity.MailAddress;
import oakbasket.core.identity.Person;
import oakbasket.server.OakBasketApplication;
import oakbasket.server.account.AccountService;
import oakbasket.server.basket.Basket;
import oakbasket.server.basket.Baskets;
import oakbasket.server.basket.Submission;
import oakbasket.server.basket.Submissions;
import oakbasket.server.link.Links;
import oakbasket.server.opening.Opening;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.round.Drafts;
import oakbasket.server.round.Item;
import oakbasket.server.round.Rounds;
import oakbasket.server.storage.Transactions;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.boot.builder.SpringApplicationBuilder;
import org.springframework.context.ConfigurableApplicationContext;
import tools.jackson.databind.json.JsonMapper;

/** Every state that a crash can leave behind, laid out by hand, and what start-up makes of it. The repair is run again on the running application. */
class StartUpRepairTest {

    private static final byte[] CONTENT = "%PDF-1.4\nsaved from a crash\n%%EOF".getBytes();

    @TempDir
    static Path data;
    private static ConfigurableApplicationContext app;
    private static int count;

    private Submission submission;
    private Basket basket;
    private Item item;
    private String folder;
    private String id;

    @BeforeAll
    static void start() {
        app = new SpringApplicationBuilder(OakBasketApplication.class).run("--server.port=0", "--oakbasket.data=" + data);
        bean(AccountService.class).make(new Person("Robin", MailAddress.parse("robin@example.org")), "willow by the water");
    }

    @AfterAll
    static void stop() {
        app.close();
    }

    @BeforeEach
    void aRoundWithOneSubmission() {
        folder = "Crash " + ++count;
        id = "crashed-upload-" + count;
        RoundSheet sheet = RoundSheetBuilder.builder().title(folder).items(List.of(RoundSheet.SheetItem.of("Paper", "", true, 1, 9, List.of("PDF"), 10)))
                .people(List.of(new RoundSheet.SheetPerson("Ada", "ada@example.org"))).deadlineDate("2099-01-01").zone("UTC").warningHours(0)
                .folderPattern("{round}").namePattern("{original}{ext}").build();
        Rounds rounds = bean(Rounds.class);
        long round = bean(Opening.class).open(bean(Drafts.class).begin(sheet, 1).head().id(), 1).id();
        basket = bean(Baskets.class).ofRound(round).get(0);
        item = rounds.items(round).get(0);
        submission = bean(Submissions.class).backdated(bean(Links.class).ofBasket(basket.id()).orElseThrow(), null, now());
    }

    @Test
    void aFileThatHadItsPlaceButNoRecordGetsItsRecord() throws Exception {
        Path part = part(CONTENT);
        Files.createDirectories(files());
        Files.createLink(files().resolve("a.pdf"), part);
        journal(arrival("a.pdf", CONTENT));
        repair();
        assertThat(received()).singleElement().satisfies(file -> {
            assertThat(file.storedPath()).isEqualTo(folder + "/a.pdf");
            assertThat(file.sizeBytes()).isEqualTo(CONTENT.length);
        });
        assertThat(part).doesNotExist();
        assertThat(files().resolve("a.pdf")).hasBinaryContent(CONTENT);
    }

    @Test
    void aFileWhoseArrivingNameWasGoneAlreadyIsKnownByItsHash() throws Exception {
        Files.createDirectories(files());
        Files.write(files().resolve("a.pdf"), CONTENT);
        journal(arrival("a.pdf", CONTENT));
        repair();
        assertThat(received()).hasSize(1);
    }

    @Test
    void aFileThatHadNoPlaceYetGetsOne() throws Exception {
        part(CONTENT);
        journal(arrival("a.pdf", CONTENT));
        repair();
        assertThat(received()).extracting(ReceivedFile::storedName).containsExactly("a.pdf");
        assertThat(files().resolve("a.pdf")).hasBinaryContent(CONTENT);
    }

    @Test
    void aPlaceThatSomebodyElseTookMeanwhileIsLeftAlone() throws Exception {
        part(CONTENT);
        Files.createDirectories(files());
        Files.writeString(files().resolve("a.pdf"), "somebody else's");
        journal(arrival("a.pdf", CONTENT));
        repair();
        assertThat(files().resolve("a.pdf")).hasContent("somebody else's");
        assertThat(files().resolve("a (2).pdf")).hasBinaryContent(CONTENT);
    }

    @Test
    void anEmptyReservationIsRemoved() throws Exception {
        part(CONTENT);
        Files.createDirectories(files());
        Files.createFile(files().resolve("a.pdf"));
        journal(arrival("a.pdf", CONTENT));
        repair();
        assertThat(received()).hasSize(1);
        try (Stream<Path> all = Files.list(files())) {
            assertThat(all).singleElement().satisfies(one -> assertThat(one).hasBinaryContent(CONTENT));
        }
    }

    @Test
    void anArrivalThatIsRecordedAlreadyIsNotRecordedTwice() throws Exception {
        bean(Uploads.class).receiveWhole(submission, item, "a.pdf", CONTENT, now());
        Arrival again = bean(ArrivalJournal.class).read().stream().filter(a -> a.target().startsWith(folder)).findFirst().orElseThrow();
        journal(again);
        repair();
        assertThat(received()).hasSize(1);
    }

    /** The database writes its tables one after another: half of a commit can be on the disk. Found by killing the server two hundred times. */
    @Test
    void anUploadThatSaysItIsDoneAndHasNoRecordGetsItsRecord() throws Exception {
        UploadTable table = bean(UploadTable.class);
        table.insertWhole(id, submission.id(), item.id(), "a.pdf", CONTENT.length, Upload.State.DONE, now());
        Files.createDirectories(files());
        Files.write(files().resolve("a.pdf"), CONTENT);
        journal(arrival("a.pdf", CONTENT));
        repair();
        assertThat(received()).extracting(ReceivedFile::storedName).containsExactly("a.pdf");
        assertThat(table.byId(id).orElseThrow().state()).isEqualTo(Upload.State.DONE);
    }

    @Test
    void oneThatCannotBeMendedKeepsNobodyElseWaitingAndItsBytesStay() throws Exception {
        Path part = part(CONTENT);
        Arrival known = arrival("a.pdf", CONTENT);
        journal(new Arrival(id, 987_654_321, known.itemId(), known.fileName(), known.lengthBytes(), known.sha256(), known.mediaType(), known.target(), known.receivedAt(), null));
        String broken = id;
        id = id + "-after";
        part(CONTENT);
        journal(arrival("b.pdf", CONTENT));
        repair();
        assertThat(received()).as("the one behind it").extracting(ReceivedFile::storedName).containsExactly("b.pdf");
        assertThat(part).hasBinaryContent(CONTENT);
        assertThat(data.resolve("incoming/arrivals.left")).content().contains(broken);
        repair();
        assertThat(part).as("also after the next start").exists();
    }

    @Test
    void bytesThatAreNotWhatTheJournalSaysAreNotRecorded() throws Exception {
        byte[] other = CONTENT.clone();
        other[12] ^= 1;
        Path part = part(other);
        journal(arrival("a.pdf", CONTENT));
        repair();
        assertThat(received()).isEmpty();
        assertThat(part).doesNotExist();
    }

    /** The same for bytes that have their place already: as many as promised, and other ones. */
    @Test
    void placedBytesThatAreNotWhatTheJournalSaysAreNotRecorded() throws Exception {
        byte[] other = CONTENT.clone();
        other[12] ^= 1;
        Files.createDirectories(files());
        Files.write(files().resolve("a.pdf"), other);
        journal(arrival("a.pdf", CONTENT));
        repair();
        assertThat(received()).isEmpty();
        assertThat(files().resolve("a.pdf")).as("and nobody's file is touched").hasBinaryContent(other);
    }

    @Test
    void aLineCutOffByTheCrashIsPassedOver() throws Exception {
        part(CONTENT);
        journal(arrival("a.pdf", CONTENT));
        Files.writeString(data.resolve("incoming/arrivals.journal"), "{\"uploadId\":\"cut o", StandardOpenOption.APPEND);
        repair();
        assertThat(received()).hasSize(1);
        assertThat(bean(ArrivalJournal.class).read()).as("emptied").isEmpty();
    }

    @Test
    void bytesBeyondTheSavedOffsetAreCutOffAndLeftoversRemoved() throws Exception {
        UploadTable table = bean(UploadTable.class);
        table.insert(id, submission.id(), item.id(), "a.pdf", 1_000, now(), "");
        table.advance(id, 0, 10, now());
        Path part = part(CONTENT);
        Path stray = Files.write(data.resolve("incoming/nobody-knows-me.part"), CONTENT);
        repair();
        assertThat(part).hasSize(10);
        assertThat(stray).doesNotExist();
        assertThat(table.byId(id).orElseThrow().offsetBytes()).isEqualTo(10);
    }

    @Test
    void anUploadWhoseBytesTheDiskLostGoesOnFromWhatIsThere() throws Exception {
        UploadTable table = bean(UploadTable.class);
        table.insert(id, submission.id(), item.id(), "a.pdf", 1_000, now(), "");
        table.advance(id, 0, 500, now());
        part(CONTENT);
        repair();
        assertThat(table.byId(id).orElseThrow().offsetBytes()).isEqualTo(CONTENT.length);
    }

    @Test
    void aFileThatHasItsPlaceIsNeverShortened() throws Exception {
        Path part = part(CONTENT);
        Files.createDirectories(files());
        Files.createLink(files().resolve("a.pdf"), part);
        org.assertj.core.api.Assertions.assertThatThrownBy(() -> bean(oakbasket.server.storage.FileStore.class).cutBack(part, 3)).hasMessageContaining("will not be shortened");
        assertThat(files().resolve("a.pdf")).hasBinaryContent(CONTENT);
        Files.delete(part);
    }

    @Test
    void uploadsThatNobodyFinishesAreRemovedAfterAWeek() throws Exception {
        UploadTable table = bean(UploadTable.class);
        Instant longAgo = now().minus(Uploads.LIFE).minusSeconds(1);
        table.insert(id, submission.id(), item.id(), "a.pdf", 1_000, longAgo, "");
        table.insert(id + "-young", submission.id(), item.id(), "a.pdf", 1_000, longAgo.plusSeconds(60), "");
        Path part = part(CONTENT);
        bean(StartUpRepair.class).expire();
        assertThat(table.byId(id)).isEmpty();
        assertThat(part).doesNotExist();
        assertThat(table.byId(id + "-young")).isPresent();
    }

    private void repair() {
        bean(StartUpRepair.class).afterSingletonsInstantiated();
    }

    private Path part(byte[] content) throws Exception {
        return Files.write(data.resolve("incoming").resolve(id + ".part"), content);
    }

    private Path files() {
        return data.resolve("files").resolve(folder);
    }

    private List<ReceivedFile> received() {
        return bean(ReceivedFiles.class).ofBasket(basket.id());
    }

    private Arrival arrival(String name, byte[] content) throws Exception {
        String sha256 = HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(content));
        return new Arrival(id, submission.id(), item.id(), name, content.length, sha256, "application/pdf", folder + "/" + name, now(), null);
    }

    private static void journal(Arrival arrival) throws Exception {
        bean(Transactions.class).flush();
        Files.writeString(data.resolve("incoming/arrivals.journal"), bean(JsonMapper.class).writeValueAsString(arrival) + "\n", StandardOpenOption.APPEND);
    }

    private static Instant now() {
        return bean(Clock.class).instant();
    }

    private static <T> T bean(Class<T> type) {
        return app.getBean(type);
    }
}
