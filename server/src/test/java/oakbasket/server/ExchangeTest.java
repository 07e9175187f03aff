package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.Socket;
import java.net.SocketException;
import java.net.URI;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import javax.imageio.ImageIO;
import oakbasket.core.team.Role;
import oakbasket.server.exchange.Exchanges;
import oakbasket.server.post.Postman;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.pdmodel.PDPageContentStream;
import org.apache.pdfbox.pdmodel.font.PDType1Font;
import org.apache.pdfbox.pdmodel.font.Standard14Fonts;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** A place in which papers go in both directions, over HTTP: by the desk on one side, by its person on the other. */
class ExchangeTest {

    private static final Instant NOW = Instant.parse("2026-06-01T09:00:00Z");
    private static int exchanges;

    private final Http desk = Http.desk();

    @BeforeEach
    @AfterEach
    void setTheClockBack() {
        RunningApp.CLOCK.set(NOW);
    }

    /** An exchange as the desk sees it. */
    private final class Made {
        final long id;
        final String person;

        Made(long id, String person) {
            this.id = id;
            this.person = person;
        }

        JsonNode full() {
            return desk.get("/api/exchanges/" + id).json();
        }

        String token() {
            String path = full().path("path").asString();
            return path.substring(path.lastIndexOf('/') + 1);
        }

        TestRound.Sender sender() {
            return new TestRound.Sender(token());
        }

        JsonNode place() {
            return sender().page().json().path("place");
        }

        /** Puts a file there and waits until it was looked at. @return its id */
        long put(String name, byte[] content) {
            JsonNode place = desk.post("/api/parcels/" + id + "/files", Http.JSON.createObjectNode().set("files", Http.JSON.createArrayNode().add(Http.JSON.createObjectNode().put("name", name).put("bytes", content.length)))
                    .toString()).json().get(0);
            long file = place.path("id").asLong();
            assertThat(desk.send("POST", "/api/parcels/" + id + "/files/" + file + "/bytes?at=0", content, "Content-Type", "application/octet-stream").status()).isEqualTo(200);
            Waiting.until(this::full, full -> full.path("files").valueStream().noneMatch(one -> one.path("state").asString().equals("CHECKING")));
            return file;
        }

        Http.Answer rights(boolean putIn, boolean see, boolean takeAway, boolean asksFirst) {
            return desk.put("/api/exchanges/" + id, "{\"version\":%d,\"putIn\":%b,\"see\":%b,\"takeAway\":%b,\"asksFirst\":%b}".formatted(full().path("version").asInt(), putIn, see, takeAway, asksFirst));
        }

        Http.Answer get(String path, String... headers) {
            return new Http().get("/x/" + token() + "/" + path, headers);
        }
    }

    private static ObjectNode sheet(String person) {
        ObjectNode sheet = Http.JSON.createObjectNode().put("title", "Exchange " + ++exchanges).put("message", "Until the map is settled.").put("item", "Maps and letters").put("days", 14).put("putIn", true)
                .put("see", true).put("takeAway", true).put("asksFirst", false).put("byLetter", false);
        sheet.putObject("person").put("name", person).put("email", TestParcel.address(person));
        return sheet;
    }

    private Made make(ObjectNode sheet) {
        Http.Answer made = desk.post("/api/exchanges", sheet.toString());
        assertThat(made.status()).as(made.text()).isEqualTo(201);
        return new Made(made.json().path("id").asLong(), sheet.path("person").path("name").asString());
    }

    private Made make(String person) {
        return make(sheet(person));
    }

    private static byte[] pdf(String... pages) throws Exception {
        try (PDDocument document = new PDDocument(); ByteArrayOutputStream out = new ByteArrayOutputStream()) {
            for (String text : pages) {
                PDPage page = new PDPage();
                document.addPage(page);
                try (PDPageContentStream content = new PDPageContentStream(document, page)) {
                    content.beginText();
                    content.setFont(new PDType1Font(Standard14Fonts.FontName.HELVETICA), 40);
                    content.newLineAtOffset(50, 500);
                    content.showText(text);
                    content.endText();
                }
            }
            document.save(out);
            return out.toByteArray();
        }
    }

    @Test
    void papersGoInBothDirectionsInOnePlace() throws Exception {
        Made place = make("Ivo Lark");
        byte[] map = pdf("Map of the meadow");
        place.put("map of the meadow.pdf", map);
        TestRound.Sender ivo = place.sender().begin();
        JsonNode page = ivo.page().json();
        assertThat(page.path("title").asString()).startsWith("Exchange");
        assertThat(page.path("person").asString()).isEqualTo("Ivo Lark");
        assertThat(page.path("items").get(0).path("title").asString()).isEqualTo("Maps and letters");
        assertThat(page.path("place").path("files")).singleElement().satisfies(file -> {
            assertThat(file.path("name").asString()).isEqualTo("map of the meadow.pdf");
            assertThat(file.path("bytes").asInt()).isEqualTo(map.length);
            assertThat(file.path("look").asString()).isEqualTo("PDF");
            assertThat(file.path("taken").asInt()).isZero();
        });
        // What the person puts in is filed by the rules, and comes with a receipt.
        assertThat(ivo.send(1, "signed map.pdf", TestRound.pdf("signed")).status()).isEqualTo(201);
        assertThat(ivo.finish().json().path("code").asString()).isNotEmpty();
        assertThat(place.full().path("received")).singleElement().satisfies(file -> assertThat(file.path("name").asString()).isEqualTo("signed map.pdf"));
        Path filed = RunningApp.DATA.resolve("files").resolve(page.path("title").asString()).resolve("Ivo Lark").resolve("2026-06-01 signed map.pdf");
        assertThat(filed).exists();
        // What lies there is taken away whole, and it is known that it was.
        Http.Answer taken = place.get("1/map.pdf");
        assertThat(taken.response().body()).isEqualTo(map);
        assertThat(taken.header("Content-Disposition")).startsWith("attachment");
        assertThat(taken.header("Content-Security-Policy")).contains("sandbox");
        Waiting.until(() -> place.full().path("files").get(0), file -> file.path("taken").asInt() == 1);
        assertThat(place.place().path("files").get(0).path("taken").asInt()).isEqualTo(1);
        // A second one, and both as one archive.
        place.put("letter.txt", "Dear Ivo".getBytes());
        try (ZipInputStream zip = new ZipInputStream(new ByteArrayInputStream(place.get("all").response().body()))) {
            ZipEntry first = zip.getNextEntry();
            assertThat(first.getName()).endsWith("/map of the meadow.pdf");
            assertThat(zip.readAllBytes()).isEqualTo(map);
            assertThat(zip.getNextEntry().getName()).endsWith("/letter.txt");
        }
    }

    @Test
    void itStandsInNoListOfRoundsAndNothingIsDueThere() {
        Made place = make("Jun Reed");
        String title = place.full().path("exchange").path("title").asString();
        assertThat(desk.get("/api/rounds").text()).doesNotContain(title);
        assertThat(desk.get("/api/parcels").text()).doesNotContain(title);
        assertThat(desk.get("/api/exchanges?find=" + URLEncoder.encode(title, StandardCharsets.UTF_8)).json().path("exchanges")).singleElement()
                .satisfies(one -> assertThat(one.path("person").asString()).isEqualTo("Jun Reed"));
        assertThat(desk.get("/api/exchanges?find=" + "jun.reed").json().path("exchanges")).isNotEmpty();
        assertThat(desk.get("/api/exchanges?find=nobody-of-this-name").json().path("exchanges")).isEmpty();
        JsonNode board = desk.get("/api/rounds/" + place.full().path("exchange").path("roundId").asLong() + "/board").json();
        assertThat(board.path("title").asString()).as("its board can be looked at all the same").isEqualTo(title);
        // And what lies there is no parcel that somebody could hand out, change or throw away.
        for (Http.Answer refused : List.of(desk.get("/api/parcels/" + place.id), desk.send("DELETE", "/api/parcels/" + place.id, null), desk.post("/api/parcels/" + place.id + "/hand-out", "{\"version\":1}"),
                desk.post("/api/parcels/" + place.id + "/stop", ""))) {
            assertThat(refused.status()).isEqualTo(404);
        }
    }

    @ParameterizedTest(name = "may {0}: puts in {1}, names {2}, looks {3}, takes {4}")
    @CsvSource({"P, 201, 0, 403, 403", "S, 403, 1, 200, 403", "T, 403, 1, 403, 200", "PS, 201, 1, 200, 403", "ST, 403, 1, 200, 200", "PST, 201, 1, 200, 200"})
    void itsPersonDoesWhatIsAllowedAndNothingElse(String may, int putsIn, int names, int looks, int takes) throws Exception {
        Made place = make("Kim " + may);
        place.put("secret of kim.pdf", pdf("one"));
        TestRound.Sender before = place.sender().begin();
        assertThat(place.rights(may.contains("P"), may.contains("S"), may.contains("T"), false).status()).isEqualTo(200);
        assertThat(before.send(1, "late.pdf", TestRound.pdf("late " + may)).status()).as("through a sending that was begun before").isEqualTo(putsIn);
        assertThat(place.sender().begin("", "").status()).isEqualTo(putsIn);
        JsonNode page = place.sender().page().json();
        assertThat(page.path("items").isEmpty()).isEqualTo(putsIn == 403);
        assertThat(page.path("place").path("files")).hasSize(names);
        assertThat(page.toString().contains("secret of kim")).isEqualTo(names == 1);
        assertThat(place.get("look/1").status()).isEqualTo(looks);
        assertThat(place.get("1/x").status()).isEqualTo(takes);
        assertThat(place.get("all").status()).isEqualTo(takes);
        if (takes == 403) {
            assertThat(place.get("1/x").problem()).isEqualTo("exchange-no-taking");
            assertThat(page.toString()).as("nor the hash of what cannot be had").doesNotContainPattern("\"sha256\":\"[0-9a-f]{64}");
        }
    }

    @Test
    void whoMaySeeAndNotTakeAwayGetsDrawingsAndNeverTheFile() throws Exception {
        Made place = make("Lou Fenn");
        byte[] two = pdf("First page", "Second page");
        place.put("two.pdf", two);
        ByteArrayOutputStream picture = new ByteArrayOutputStream();
        ImageIO.write(new BufferedImage(3_000, 2_000, BufferedImage.TYPE_INT_RGB), "png", picture);
        place.put("wide.png", picture.toByteArray());
        place.put("note.txt", "Grüße <script>".getBytes(StandardCharsets.UTF_8));
        place.put("unknown.bin", new byte[] {1, 2, 3});
        place.rights(true, true, false, false);
        Http.Answer first = place.get("look/1");
        Http.Answer second = place.get("look/1?page=2");
        assertThat(first.header("Content-Type")).isEqualTo("image/png");
        assertThat(first.header("Oak-Pages")).isEqualTo("2");
        assertThat(first.header("Cache-Control")).contains("no-store");
        assertThat(ImageIO.read(new ByteArrayInputStream(first.response().body())).getHeight()).isBetween(1_000, 1_400);
        assertThat(first.response().body()).isNotEqualTo(second.response().body());
        assertThat(place.get("look/1?page=3").status()).isEqualTo(404);
        assertThat(place.get("look/1?page=-1").status()).isEqualTo(404);
        BufferedImage drawn = ImageIO.read(new ByteArrayInputStream(place.get("look/2").response().body()));
        assertThat(Math.max(drawn.getWidth(), drawn.getHeight())).as("no more than a screen shows").isLessThanOrEqualTo(1_400);
        Http.Answer text = place.get("look/3");
        assertThat(text.header("Content-Type")).as("a text is drawn like everything else").isEqualTo("image/png");
        assertThat(ImageIO.read(new ByteArrayInputStream(text.response().body())).getWidth()).isEqualTo(560);
        assertThat(new String(text.response().body(), StandardCharsets.ISO_8859_1)).doesNotContain("script");
        assertThat(place.get("look/4").problem()).isEqualTo("no-preview");
        assertThat(place.get("look/9").status()).isEqualTo(404);
        place.put("broken.pdf", "%PDF-1.7\nnot really".getBytes());
        assertThat(place.get("look/5").problem()).isEqualTo("no-preview");
        assertThat(Loader.loadPDF(two).getNumberOfPages()).as("the test's own file").isEqualTo(2);
    }

    @Test
    void whereAnInvitationHasToBeAcceptedNothingHoldsBefore() throws Exception {
        Made place = make(sheet("Mo Ash").put("asksFirst", true));
        place.put("for mo.pdf", pdf("x"));
        TestRound.Sender mo = place.sender();
        JsonNode page = mo.page().json();
        assertThat(page.path("place").path("asks").asBoolean()).isTrue();
        assertThat(page.path("items")).isEmpty();
        assertThat(page.toString()).doesNotContain("for mo.pdf");
        assertThat(mo.begin("", "").problem()).isEqualTo("link-takes-nothing");
        assertThat(place.get("1/x").status()).isEqualTo(403);
        assertThat(place.get("look/1").status()).isEqualTo(403);
        assertThat(place.full().path("exchange").path("state").asString()).isEqualTo("INVITED");
        assertThat(answer(mo, "false").status()).isEqualTo(204);
        assertThat(place.full().path("exchange").path("state").asString()).isEqualTo("DECLINED");
        assertThat(answer(mo, "false").problem()).isEqualTo("exchange-answered");
        assertThat(answer(mo, "null").status()).isEqualTo(400);
        assertThat(answer(mo, "true").status()).as("whoever declined may think better of it").isEqualTo(204);
        assertThat(answer(mo, "false").problem()).isEqualTo("exchange-answered");
        assertThat(place.full().path("exchange").path("state").asString()).isEqualTo("LIVE");
        assertThat(mo.begin("", "").status()).isEqualTo(201);
        assertThat(place.get("1/x").status()).isEqualTo(200);
        assertThat(place.full().path("story").valueStream().map(one -> one.path("what").asString()).toList()).contains("ACCEPTED", "DECLINED", "FILE_PUT", "MADE");
        assertThat(answer(new TestRound.Sender("no-such-link"), "true").status()).isEqualTo(404);
        TestRound plain = new TestRound().onlyPeople("Nel Wick").open();
        assertThat(answer(plain.personal("Nel Wick"), "true").problem()).as("where papers go in one direction").isEqualTo("no-exchange");
    }

    private static Http.Answer answer(TestRound.Sender sender, String accepts) {
        return sender.http.post("/api/place/answer", "{\"accepts\":" + accepts + "}", "Oak-Link", sender.token, "Oak-Ticket", sender.ticket);
    }

    @Test
    void aReturnedPaperIsAnsweredByACorrectedFormInTheSamePlace() throws Exception {
        Made place = make("Oz Hale");
        TestRound.Sender oz = place.sender().begin();
        oz.send(1, "claim.pdf", TestRound.pdf("claim"));
        oz.finish();
        long sent = place.full().path("received").get(0).path("id").asLong();
        assertThat(desk.post("/api/files/" + sent + "/review", "{\"from\":\"NONE\",\"to\":\"RETURNED\",\"reason\":\"Wrong field\"}").status()).isEqualTo(204);
        long form = place.put("claim corrected.pdf", pdf("corrected"));
        assertThat(desk.put("/api/exchanges/" + place.id + "/answers", "{\"file\":%d,\"received\":%d}".formatted(form, sent)).status()).isEqualTo(204);
        JsonNode page = oz.page().json();
        assertThat(page.path("items").get(0).path("returnedBecause").asString()).isEqualTo("Wrong field");
        assertThat(page.path("place").path("files").get(0).path("answers").asString()).isEqualTo("claim.pdf");
        assertThat(place.full().path("received").get(0).path("answered").get(0).asString()).isEqualTo("claim corrected.pdf");
        TestRound other = new TestRound().onlyPeople("Pat Ferry").open();
        TestRound.Sender pat = other.personal("Pat Ferry").begin();
        pat.send(1, "c.pdf", TestRound.pdf("c"));
        pat.finish();
        long foreign = other.panel("Pat Ferry").path("files").get(0).path("id").asLong();
        assertThat(desk.put("/api/exchanges/" + place.id + "/answers", "{\"file\":%d,\"received\":%d}".formatted(form, foreign)).status()).as("what somebody else sent is answered nowhere here").isEqualTo(404);
    }

    @Test
    void inTheBasketOfARoundPapersGoInBothDirectionsToo() throws Exception {
        TestRound round = new TestRound().onlyPeople("Quin Moss", "Roe Vale").open();
        long basket = desk.get("/api/rounds/" + round.id + "/board").json().path("rows").valueStream().filter(row -> row.path("name").asString().equals("Quin Moss")).findFirst().orElseThrow().path("id").asLong();
        assertThat(desk.get("/api/exchanges/of-basket/" + basket).json().path("id").isNull()).isTrue();
        long id = desk.post("/api/exchanges/of-basket/" + basket, "").json().path("id").asLong();
        assertThat(desk.post("/api/exchanges/of-basket/" + basket, "").json().path("id").asLong()).as("there is one").isEqualTo(id);
        Made place = new Made(id, "Quin Moss");
        place.put("plan.pdf", pdf("plan"));
        JsonNode page = round.personal("Quin Moss").page().json();
        assertThat(page.path("place").path("alone").asBoolean()).isFalse();
        assertThat(page.path("place").path("files")).hasSize(1);
        assertThat(page.path("items")).isNotEmpty();
        assertThat(round.personal("Roe Vale").page().text()).as("nobody else learns of it").doesNotContain("plan.pdf").contains("\"place\":null");
        String roe = round.personal("Roe Vale").token;
        assertThat(new Http().get("/x/" + roe + "/1/plan.pdf").status()).isEqualTo(404);
        assertThat(desk.get("/api/rounds").text()).contains(round.title());
    }

    @Test
    void whatIsTakenBackIsGoneAtOnceAlsoInTheMiddleAndCanBePutThereAgain() throws Exception {
        Made place = make("Sam Tarn");
        byte[] large = new byte[48 << 20];
        long file = place.put("large.bin", large);
        place.put("small.txt", "s".getBytes());
        URI address = URI.create(RunningApp.URL);
        try (Socket socket = new Socket(address.getHost(), address.getPort())) {
            socket.setReceiveBufferSize(1 << 16);
            OutputStream out = socket.getOutputStream();
            out.write(("GET /x/" + place.token() + "/1/large.bin HTTP/1.1\r\nHost: " + address.getAuthority() + "\r\nConnection: close\r\n\r\n").getBytes(StandardCharsets.US_ASCII));
            InputStream in = socket.getInputStream();
            ByteArrayOutputStream came = new ByteArrayOutputStream();
            came.writeBytes(in.readNBytes(1 << 20));
            assertThat(came.size()).isEqualTo(1 << 20);
            assertThat(desk.send("DELETE", "/api/parcels/" + place.id + "/files/" + file, null).status()).isEqualTo(204);
            try {
                for (byte[] more = in.readNBytes(1 << 14); more.length > 0; more = in.readNBytes(1 << 14)) {
                    came.writeBytes(more);
                }
            } catch (SocketException reset) {
                assertThat(reset).as("which may be a reset line").isNotNull();
            }
            assertThat(came.size()).as("it breaks off").isLessThan(large.length - (2 << 20));
            String all = came.toString(StandardCharsets.ISO_8859_1);
            assertThat(all.substring(all.indexOf("\r\n\r\n") + 4).replace("\u0000", "")).as("and nothing but the file came before that").isEmpty();
        }
        assertThat(place.place().path("files")).singleElement().satisfies(one -> assertThat(one.path("number").asInt()).as("the others keep their numbers").isEqualTo(2));
        assertThat(place.get("1/large.bin").status()).isEqualTo(404);
        assertThat(place.full().path("takenBack")).hasSize(1);
        place.put("LARGE.bin", "another".getBytes());
        assertThat(place.place().path("files").get(1).path("name").asString()).as("the name of what was taken back stays its own").isEqualTo("LARGE (2).bin");
        assertThat(desk.post("/api/exchanges/" + place.id + "/files/" + file + "/put-back", "").status()).isEqualTo(204);
        assertThat(desk.post("/api/exchanges/" + place.id + "/files/" + file + "/put-back", "").status()).as("twice").isEqualTo(409);
        assertThat(place.place().path("files")).hasSize(3);
        // Taken back for more than a day, its bytes are destroyed.
        desk.send("DELETE", "/api/parcels/" + place.id + "/files/" + file, null);
        RunningApp.CLOCK.set(NOW.plusSeconds(86_400 + 60));
        RunningApp.bean(oakbasket.server.parcel.ParcelFiles.class).tidy();
        assertThat(place.full().path("takenBack")).isEmpty();
        assertThat(desk.post("/api/exchanges/" + place.id + "/files/" + file + "/put-back", "").status()).isEqualTo(410);
    }

    @Test
    void itsLinkIsItsDoor() throws Exception {
        Made place = make(sheet("Tea Combe").put("passcode", "otter pool").put("name", "tea-and-us"));
        place.put("for tea.pdf", pdf("x"));
        assertThat(place.full().path("path").asString()).startsWith("/b/tea-and-us/");
        TestRound.Sender tea = place.sender();
        assertThat(tea.page().problem()).isEqualTo("link-passcode-needed");
        assertThat(place.get("1/x").status()).isEqualTo(401);
        tea.ticket = tea.http.post("/api/basket/passcode", "{\"passcode\":\"otter pool\"}", "Oak-Link", tea.token).json().path("ticket").asString();
        assertThat(tea.page().json().path("place").path("files")).hasSize(1);
        Http.Answer carried = tea.http.post("/api/place/ticket", "", "Oak-Link", tea.token, "Oak-Ticket", tea.ticket);
        String cookie = carried.header("Set-Cookie");
        assertThat(cookie).contains("HttpOnly", "SameSite=Strict", "Path=/x/" + tea.token);
        assertThat(place.get("1/x", "Cookie", cookie.substring(0, cookie.indexOf(';'))).status()).isEqualTo(200);
        long link = place.full().path("linkId").asLong();
        Http.Answer browser = place.get("1/x", "Accept", "text/html");
        assertThat(browser.status()).as("a person in a browser is led to the page").isEqualTo(303);
        assertThat(browser.header("Location")).isEqualTo("/b/" + tea.token);
        desk.post("/api/links/acts", "{\"kind\":\"PAUSE\",\"ids\":[" + link + "]}");
        assertThat(place.full().path("exchange").path("state").asString()).isEqualTo("PAUSED");
        assertThat(place.get("1/x").status()).isEqualTo(403);
        assertThat(desk.post("/api/exchanges/" + place.id + "/letter", "").problem()).isEqualTo("exchange-not-live");
        desk.post("/api/links/acts", "{\"kind\":\"GO_ON\",\"ids\":[" + link + "]}");
        RunningApp.CLOCK.set(NOW.plusSeconds(15 * 86_400));
        assertThat(place.full().path("exchange").path("state").asString()).isEqualTo("ENDED");
        assertThat(place.get("1/x").status()).isEqualTo(410);
        desk.post("/api/links/acts", "{\"kind\":\"RENEW\",\"ids\":[" + link + "],\"days\":7}");
        assertThat(place.get("1/x", "Cookie", cookie.substring(0, cookie.indexOf(';'))).status()).as("the same address with a new window").isIn(200, 401);
        // A month after its end the files are destroyed, and the record stays.
        RunningApp.CLOCK.set(NOW.plusSeconds((15 + 7 + 29) * 86_400L));
        RunningApp.bean(Exchanges.class).purge();
        assertThat(place.full().path("files")).hasSize(1);
        RunningApp.CLOCK.set(NOW.plusSeconds((15 + 7 + 31) * 86_400L));
        RunningApp.bean(Exchanges.class).purge();
        assertThat(place.full().path("files")).isEmpty();
        assertThat(place.full().path("story").get(0).path("what").asString()).isEqualTo("PURGED");
    }

    @Test
    void aPageThatStaysOpenLearnsOfEachChange() throws Exception {
        Made place = make("Uma Lea");
        TestRound.Sender uma = place.sender();
        String mark = uma.page().json().path("mark").asString();
        assertThat(mark).isNotEmpty();
        assertThat(mark(uma)).as("nothing happened").isEqualTo(mark);
        place.put("a.txt", "a".getBytes());
        String after = mark(uma);
        assertThat(after).isNotEqualTo(mark);
        uma.begin().send(1, "mine.pdf", TestRound.pdf("mine"));
        uma.finish();
        String sent = mark(uma);
        assertThat(sent).isNotEqualTo(after);
        desk.post("/api/files/" + place.full().path("received").get(0).path("id").asLong() + "/review", "{\"from\":\"NONE\",\"to\":\"RETURNED\",\"reason\":\"no\"}");
        assertThat(mark(uma)).isNotEqualTo(sent);
        TestRound plain = new TestRound().onlyPeople("Vi Down").open();
        assertThat(mark(plain.personal("Vi Down"))).as("a page on which nothing goes out says nothing").isEmpty();
    }

    private static String mark(TestRound.Sender sender) {
        return sender.http.get("/api/basket/mark", "Oak-Link", sender.token).json().path("mark").asString();
    }

    @Test
    void itsPersonIsWrittenToWhatLiesThere() throws Exception {
        Made place = make(sheet("Wes Brow").put("byLetter", true));
        place.put("lease.pdf", pdf("lease"));
        post(2);
        assertThat(Outbox.to("Wes Brow")).hasSize(1);
        assertThat(Outbox.subject(Outbox.to("Wes Brow").get(0))).isEqualTo("A place for papers between us: " + place.full().path("exchange").path("title").asString());
        assertThat(Outbox.text(Outbox.to("Wes Brow").get(0))).contains("Until the map is settled.", "Open until Monday 15 June 2026", "lease.pdf", "/b/" + place.token());
        place.get("1/lease.pdf");
        Waiting.until(place::full, full -> full.path("files").get(0).path("taken").asInt() == 1);
        desk.post("/api/exchanges/" + place.id + "/letter", "");
        desk.post("/api/exchanges/" + place.id + "/letter", "");
        post(6);
        assertThat(Outbox.to("Wes Brow")).as("one, however often it was asked for").hasSize(2);
        assertThat(Outbox.text(Outbox.to("Wes Brow").get(1))).as("of what was taken away nothing is said").doesNotContain("lease.pdf");
        place.rights(true, false, false, false);
        place.put("hidden.pdf", pdf("h"));
        desk.post("/api/exchanges/" + place.id + "/letter", "");
        post(10);
        assertThat(Outbox.text(Outbox.to("Wes Brow").get(2))).as("nor of what they may not see").doesNotContain("hidden.pdf");
    }

    private static void post(int minutes) {
        RunningApp.CLOCK.set(NOW.plusSeconds(60L * minutes));
        RunningApp.bean(Postman.class).deliver();
    }

    @Test
    void whatCannotBeIsSaidAtItsField() {
        assertThat(fields(sheet("Xa Y").put("title", " "))).containsExactly("title");
        assertThat(fields(sheet("Xa Y").put("putIn", false).put("see", false).put("takeAway", false))).containsExactly("putIn");
        assertThat(fields(sheet("Xa Y").put("days", 0))).containsExactly("days");
        assertThat(fields(sheet("Xa Y").put("days", 181))).containsExactly("days");
        assertThat(fields(sheet("Xa Y").putNull("days").put("endsOn", "2026-05-01"))).containsExactly("ends");
        assertThat(fields(sheet("Xa Y").putNull("days").put("endsOn", "soon"))).containsExactly("ends");
        assertThat(fields(sheet("Xa Y").put("passcode", "x"))).containsExactly("passcode");
        assertThat(fields(sheet("Xa Y").put("name", "../.."))).containsExactly("name");
        ObjectNode nobody = sheet("Xa Y");
        nobody.putNull("person");
        assertThat(fields(nobody)).containsExactly("person");
        ObjectNode wrong = sheet("Xa Y");
        wrong.putObject("person").put("name", "X").put("email", "no address");
        assertThat(fields(wrong)).containsExactly("person");
        assertThat(desk.get("/api/exchanges?find=xa.y").json().path("exchanges")).as("nothing of it was stored").isEmpty();
        Made place = make("Yan Gill");
        assertThat(place.rights(false, false, false, true).status()).isEqualTo(422);
        JsonNode full = place.full();
        assertThat(desk.put("/api/exchanges/" + place.id, "{\"version\":" + full.path("version") + ",\"putIn\":true}").status()).isEqualTo(200);
        assertThat(desk.put("/api/exchanges/" + place.id, "{\"version\":" + full.path("version") + ",\"putIn\":true}").status()).as("changed since").isEqualTo(409);
        assertThat(desk.get("/api/exchanges/987654").status()).isEqualTo(404);
        assertThat(desk.post("/api/exchanges/of-basket/987654", "").status()).isEqualTo(404);
    }

    private List<String> fields(ObjectNode sheet) {
        Http.Answer answer = desk.post("/api/exchanges", sheet.toString());
        assertThat(answer.status()).as(answer.text()).isEqualTo(422);
        return answer.json().path("errors").valueStream().map(error -> error.path("field").asString()).toList();
    }

    /** Somebody who works here and does not see the round of an exchange finds nothing of it, whatever they ask. */
    @Test
    void anExchangeOfAHiddenRoundIsHidden() throws Exception {
        TestTeam other = TestTeam.of(Role.COORDINATOR);
        TestTeam owner = TestTeam.of(Role.COORDINATOR);
        ObjectNode sheet = sheet("Zed Holt");
        long id = owner.desk.post("/api/exchanges", sheet.toString()).json().path("id").asLong();
        long round = owner.desk.get("/api/exchanges/" + id).json().path("exchange").path("roundId").asLong();
        assertThat(other.desk.get("/api/exchanges/" + id).status()).isEqualTo(200);
        assertThat(owner.desk.put("/api/sharing/" + round, "{\"owner\":%d,\"wholeOffice\":false,\"with\":[]}".formatted(owner.id())).status()).isEqualTo(200);
        assertThat(other.desk.get("/api/exchanges/" + id).status()).isEqualTo(404);
        assertThat(other.desk.get("/api/exchanges").text()).doesNotContain(sheet.path("title").asString());
        assertThat(other.desk.post("/api/parcels/" + id + "/files", "{\"files\":[{\"name\":\"a\",\"bytes\":1}]}").status()).isEqualTo(404);
        assertThat(other.desk.put("/api/exchanges/" + id, "{\"version\":1,\"putIn\":true}").status()).isEqualTo(404);
        assertThat(owner.desk.get("/api/exchanges/" + id).status()).isEqualTo(200);
        TestTeam reader = TestTeam.of(Role.READER);
        Made seen = make("Abe Sill");
        assertThat(reader.desk.get("/api/exchanges/" + seen.id).json().path("path").asString()).as("whoever only reads gets no address by which others come in").isEmpty();
        assertThat(Files.exists(RunningApp.DATA)).isTrue();
    }
}
