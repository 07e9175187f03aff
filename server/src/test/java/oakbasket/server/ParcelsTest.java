package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.net.Socket;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Base64;
import java.util.HashMap;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import oakbasket.server.digest.DigestLooks;
import oakbasket.server.parcel.Parcels;
import oakbasket.server.post.ParcelReminders;
import oakbasket.server.post.Postman;
import oakbasket.server.security.Limits;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

class ParcelsTest {

    private static final Instant NOW = Instant.parse("2026-06-01T09:00:00Z");
    private static final byte[] MAP = content(1, 300_000);

    @BeforeEach
    void now() {
        RunningApp.CLOCK.set(NOW);
        // Other tests ask for links that do not exist, from this address too.
        for (int n = 0; n < 60; n++) {
            RunningApp.bean(Limits.class).giveBack(Limits.Kind.UNKNOWN_LINK, "127.0.0.1");
        }
    }

    private static byte[] content(long seed, int length) {
        byte[] content = new byte[length];
        new Random(seed).nextBytes(content);
        return content;
    }

    private static Map<String, byte[]> unzipped(byte[] zip) {
        Map<String, byte[]> files = new HashMap<>();
        try (ZipInputStream in = new ZipInputStream(new ByteArrayInputStream(zip))) {
            for (ZipEntry entry = in.getNextEntry(); entry != null; entry = in.getNextEntry()) {
                files.put(entry.getName(), in.readAllBytes());
            }
        } catch (IOException damaged) {
            throw new AssertionError(damaged);
        }
        return files;
    }

    private static void deliver() {
        RunningApp.CLOCK.set(RunningApp.CLOCK.instant().plusSeconds(90));
        RunningApp.bean(Postman.class).deliver();
    }

    @Test
    void filesAreHandedOutSeenTakenAndCountedForEachPerson() {
        TestRound round = new TestRound().onlyPeople("Pru Alder").open();
        round.personal("Pru Alder").begin().send(1, "consent.pdf", TestRound.pdf("signed"));
        long received = round.panel("Pru Alder").path("files").get(0).path("id").asLong();
        TestParcel parcel = new TestParcel().person("Pru Alder").person("Quill Reed").file("Karte “Bach” 1:500.tif", MAP);
        parcel.desk.post("/api/parcels/" + parcel.id + "/picked", "{\"files\":[" + received + "]}");
        assertThat(parcel.desk.post("/api/parcels/" + parcel.id + "/picked", "{\"files\":[" + received + "]}").json().path("count").asInt()).as("picked once").isZero();
        parcel.sheet.put("message", "As agreed.").put("name", "Alder & Reed");
        parcel.handOut();
        deliver();
        String letter = Outbox.text(Outbox.to("Quill Reed").get(0));
        assertThat(letter).contains(parcel.sheet.path("title").asString(), "As agreed.", "Can be taken away until Monday 15 June 2026, 10:00 (British Time)", "/p/alder-reed/" + parcel.taker("Quill Reed").token())
                .doesNotContain(parcel.taker("Pru Alder").token());
        assertThat(Outbox.subject(Outbox.to("Quill Reed").get(0))).isEqualTo("Files for you: " + parcel.sheet.path("title").asString());

        TestParcel.Taker quill = parcel.taker("Quill Reed");
        JsonNode page = quill.page().json();
        assertThat(page.path("person").asString()).isEqualTo("Quill Reed");
        assertThat(page.path("by").asString()).isEqualTo("Robin Fenn");
        assertThat(page.toString()).as("of others nothing").doesNotContain("Pru Alder\"");
        JsonNode file = page.path("files").get(0);
        assertThat(file.path("name").asString()).as("a safe name").isEqualTo("Karte “Bach” 1_500.tif");
        assertThat(file.path("sha256").asString()).isEqualTo(Http.sha256(MAP));
        quill.http().post("/api/pick-up/seen", "", "Oak-Link", quill.token());
        Http.Answer taken = quill.take(1, file.path("name").asString());
        assertThat(taken.response().body()).isEqualTo(MAP);
        // RFC 9530, and RFC 8187 for the name.
        assertThat(taken.header("Repr-Digest")).isEqualTo("sha-256=:" + Base64.getEncoder().encodeToString(HexFormat.of().parseHex(Http.sha256(MAP))) + ":");
        assertThat(taken.header("Content-Disposition")).startsWith("attachment").contains("filename*=UTF-8''Karte%20%E2%80%9CBach%E2%80%9D%201_500.tif");
        assertThat(taken.header("Content-Security-Policy")).startsWith("sandbox");
        String folder = parcel.sheet.path("title").asString() + "/";
        Map<String, byte[]> all = unzipped(quill.all().response().body());
        assertThat(all).containsOnlyKeys(folder + "Karte “Bach” 1_500.tif", folder + "Pru Alder - Consent.pdf");
        assertThat(all.get(folder + "Pru Alder - Consent.pdf")).isEqualTo(TestRound.pdf("signed"));
        assertThat(unzipped(quill.http().get("/d/" + quill.token() + "/chosen.zip?files=2").response().body())).hasSize(1);

        // One alone, both, one alone.
        JsonNode way = parcel.took("Quill Reed", 4);
        assertThat(way.path("files").asInt()).isEqualTo(2);
        assertThat(way.path("seenAt").isNull()).isFalse();
        assertThat(parcel.way("Pru Alder").path("times").asInt()).isZero();
        JsonNode listed = parcel.full().path("parcel");
        assertThat(listed.path("done").asInt()).isEqualTo(1);
        assertThat(parcel.full().path("took").get(0).path("name").asString()).isEqualTo("Quill Reed");
        assertThat(quill.page().json().path("files").get(0).path("taken").asInt()).isEqualTo(2);
        assertThat(parcel.desk.get("/api/contacts/" + way.path("contactId") + "/parcels").json().get(0).path("title")).isEqualTo(parcel.sheet.path("title"));
        JsonNode sent = parcel.desk.get("/api/parcels/" + parcel.id + "/letters").json();
        assertThat(sent.valueStream().filter(one -> one.path("name").asString().equals("Quill Reed")).map(one -> one.path("state").asString() + " " + one.path("kind").asString() + " " + one.path("openedAt").isNull()))
                .containsExactly("SENT PARCEL false");
    }

    /** RFC 9110, 13 and 14: ranges, conditions, and what goes on is no second pick-up. */
    @Test
    void aFileIsTakenFromAnyByteOnAndCountedOnce() {
        TestParcel parcel = new TestParcel().person("Rae Brook").file("map.tif", MAP).handOut();
        TestParcel.Taker rae = parcel.taker("Rae Brook");
        Http.Answer first = rae.take(1, "map.tif", "Range", "bytes=0-99999");
        assertThat(first.status()).isEqualTo(206);
        assertThat(first.header("Content-Range")).isEqualTo("bytes 0-99999/300000");
        String tag = first.header("ETag");
        assertThat(tag).isEqualTo("\"" + Http.sha256(MAP) + "\"");
        Http.Answer rest = rae.take(1, "map.tif", "Range", "bytes=100000-", "If-Range", tag);
        assertThat(rest.status()).isEqualTo(206);
        assertThat(rest.response().body()).isEqualTo(Arrays.copyOfRange(MAP, 100_000, MAP.length));
        parcel.took("Rae Brook", 1);
        assertThat(rae.take(1, "map.tif", "Range", "bytes=-5").response().body()).as("the last bytes once more go on with it").isEqualTo(Arrays.copyOfRange(MAP, MAP.length - 5, MAP.length));
        assertThat(rae.take(1, "map.tif", "Range", "bytes=100-", "If-Range", "\"another\"").status()).as("of another version the whole").isEqualTo(200);
        Http.Answer beyond = rae.take(1, "map.tif", "Range", "bytes=300000-");
        assertThat(beyond.status()).isEqualTo(416);
        assertThat(beyond.header("Content-Range")).isEqualTo("bytes */300000");
        assertThat(rae.take(1, "map.tif", "If-None-Match", tag).status()).isEqualTo(304);
        assertThat(rae.take(1, "map.tif", "If-None-Match", "W/" + tag + ", \"x\"").status()).isEqualTo(304);
        assertThat(rae.take(1, "map.tif", "If-Match", "\"another\"").status()).isEqualTo(412);
        for (String odd : List.of("bytes=0-1,5-6", "lines=1-2", "bytes=9-1", "bytes=x")) {
            assertThat(rae.take(1, "map.tif", "Range", odd).status()).as(odd).isEqualTo(200);
        }
        Http.Answer head = rae.http().send("HEAD", "/d/" + rae.token() + "/1/map.tif", null, "Range", "bytes=0-1");
        assertThat(head.status()).isEqualTo(200);
        assertThat(head.header("Content-Length")).isEqualTo("300000");
        Http.Answer zip = rae.http().get("/d/" + rae.token() + "/chosen.zip?files=1");
        byte[] whole = zip.response().body();
        Http.Answer tail = rae.http().get("/d/" + rae.token() + "/chosen.zip?files=1", "Range", "bytes=150000-", "If-Range", zip.header("ETag"));
        assertThat(tail.response().body()).isEqualTo(Arrays.copyOfRange(whole, 150_000, whole.length));
    }

    /** One pick-up each is allowed, and the line dies at 99 % a hundred times. */
    @Test
    void whatDiesAt99PercentAHundredTimesIsOnePickUp() throws Exception {
        byte[] large = content(7, 120_000_000);
        TestParcel parcel = new TestParcel().person("Sol Tarn").file("large.bin", large);
        parcel.sheet.put("mostPickUps", 1);
        parcel.handOut();
        TestParcel.Taker sol = parcel.taker("Sol Tarn");
        for (int n = 0; n < 100; n++) {
            // From its beginning and from its middle; the client goes while a part of what it asked for has not left the server.
            assertThat(readAndGo("/d/" + sol.token() + "/1/large.bin", n % 2 == 0 ? 0 : 20_000_000, 100_000)).isTrue();
        }
        JsonNode way = Waiting.until(() -> parcel.way("Sol Tarn"), one -> one.path("begun").asInt() > 0);
        assertThat(way.path("times").asInt() + " " + way.path("begun").asInt()).as("it broke off, and is one").isEqualTo("0 1");
        Http.Answer whole = sol.take(1, "large.bin");
        assertThat(Http.sha256(whole.response().body())).isEqualTo(Http.sha256(large));
        parcel.took("Sol Tarn", 1);
        assertThat(sol.take(1, "large.bin", "Range", "bytes=119999990-").status()).as("what was on the line may be asked for again").isEqualTo(206);
        Http.Answer again = sol.take(1, "large.bin");
        assertThat(again.status()).isEqualTo(410);
        assertThat(again.problem()).isEqualTo("parcel-taken");
        assertThat(sol.all().status()).isEqualTo(410);
        assertThat(sol.http().get("/d/" + sol.token() + "/look/1").problem()).as("looking is as good as taking").isEqualTo("no-preview");
    }

    /** A telephone leaves one network in the middle and asks for the rest from another; and neither that nor what strangers began beside it is a second one. */
    @Test
    void whatGoesOnFromAnotherNetworkIsOnePickUp() throws Exception {
        byte[] large = content(8, 60_000_000);
        TestParcel parcel = new TestParcel().person("Una Marsh").file("large.bin", large).handOut();
        TestParcel.Taker una = parcel.taker("Una Marsh");
        // So much that whole parts have left, which are noted, and those it goes on from are among them.
        assertThat(readAndGo("127.0.0.9", "/d/" + una.token() + "/1/large.bin", 0, 5_000_000)).isTrue();
        Waiting.until(() -> parcel.way("Una Marsh"), one -> one.path("begun").asInt() == 1);
        assertThat(una.take(1, "large.bin", "Range", "bytes=2000000-").response().body()).isEqualTo(Arrays.copyOfRange(large, 2_000_000, large.length));
        parcel.took("Una Marsh", 1);
        assertThat(parcel.way("Una Marsh").path("begun").asInt()).as("none is left behind").isZero();
        assertThat(una.take(1, "large.bin").status()).isEqualTo(200);
        parcel.took("Una Marsh", 2);
    }

    /** Asks for a file and goes after some bytes. @return whether bytes came */
    private static boolean readAndGo(String path, long from, int bytes) throws IOException {
        return readAndGo("127.0.0.1", path, from, bytes);
    }

    private static boolean readAndGo(String caller, String path, long from, int bytes) throws IOException {
        URI address = URI.create(RunningApp.URL);
        try (Socket socket = new Socket()) {
            socket.setReceiveBufferSize(64 * 1024);
            socket.bind(new java.net.InetSocketAddress(caller, 0));
            socket.connect(new java.net.InetSocketAddress(address.getHost(), address.getPort()));
            socket.getOutputStream().write(("GET " + path + " HTTP/1.1\r\nHost: " + address.getAuthority() + "\r\nRange: bytes=" + from + "-\r\n\r\n").getBytes(StandardCharsets.US_ASCII));
            InputStream in = socket.getInputStream();
            int read = in.readNBytes(bytes).length;
            socket.setSoLinger(true, 0);
            return read == bytes;
        }
    }

    /** How many bytes of everything come to somebody, where something is done in the middle of it. */
    private static long cameUntil(TestParcel.Taker taker, Runnable done) throws IOException {
        URI address = URI.create(RunningApp.URL);
        try (Socket socket = new Socket(address.getHost(), address.getPort())) {
            socket.setSoTimeout(20_000);
            socket.getOutputStream().write(("GET /d/" + taker.token() + "/all HTTP/1.1\r\nHost: " + address.getAuthority() + "\r\n\r\n").getBytes(StandardCharsets.US_ASCII));
            InputStream in = socket.getInputStream();
            assertThat(in.readNBytes(1_000_000)).hasSize(1_000_000);
            done.run();
            long came = 1_000_000;
            try {
                byte[] buffer = new byte[1 << 20];
                for (int n = in.read(buffer); n >= 0; n = in.read(buffer)) {
                    came += n;
                }
            } catch (java.net.SocketException reset) {
                // As good as an end.
            }
            return came;
        }
    }

    /** What is stopped or withdrawn refuses at once, also in the middle of what is being taken away; nothing of it is told to a stranger. */
    @Test
    void stoppingWorksAtOnceAndCanBeTakenBack() throws Exception {
        byte[] part = content(8, 32 << 20);
        TestParcel parcel = new TestParcel().person("Tova Mill").person("Ulf Pond");
        // Larger than what a kernel takes in at once for somebody who does not read.
        long large = 13L * part.length;
        long file = parcel.announce("large.bin", large).json().get(0).path("id").asLong();
        for (int n = 0; n < 13; n++) {
            assertThat(parcel.bytes(file, (long) n * part.length, part).status()).isEqualTo(200);
        }
        parcel.handOut();
        TestParcel.Taker tova = parcel.taker("Tova Mill");
        assertThat(cameUntil(tova, () -> assertThat(parcel.act("stop").status()).isEqualTo(204))).as("it breaks off").isLessThan(large);
        for (Http.Answer refused : List.of(tova.page(), tova.all(), tova.take(1, "large.bin"), new TestParcel.Taker("x".repeat(27), new Http()).page())) {
            assertThat(refused.status()).isEqualTo(404);
            assertThat(refused.problem()).isEqualTo("link-unknown");
        }
        parcel.act("go-on");
        assertThat(tova.page().status()).isEqualTo(200);
        TestParcel.Taker ulf = parcel.taker("Ulf Pond");
        long his = parcel.way("Ulf Pond").path("id").asLong();
        assertThat(cameUntil(ulf, () -> assertThat(parcel.act("links/" + his + "/address").status()).isLessThan(300))).as("a new address cuts what is under way on the old one").isLessThan(large);
        assertThat(ulf.page().status()).isEqualTo(404);
        long link = parcel.way("Tova Mill").path("id").asLong();
        parcel.act("links/" + link + "/withdraw");
        assertThat(tova.page().status()).isEqualTo(404);
        assertThat(parcel.taker("Ulf Pond").page().status()).as("whose link was not withdrawn").isEqualTo(200);
        parcel.act("links/" + link + "/give-back");
        parcel.act("links/" + link + "/address");
        assertThat(tova.page().status()).as("the address before").isEqualTo(404);
        assertThat(parcel.taker("Tova Mill").page().status()).isEqualTo(200);
        RunningApp.CLOCK.set(NOW.plusSeconds(15 * 86_400));
        assertThat(parcel.taker("Tova Mill").page().problem()).isEqualTo("parcel-ended");
        assertThat(parcel.desk.post("/api/parcels/" + parcel.id + "/renew", "{\"days\":7}").status()).isEqualTo(204);
        assertThat(parcel.taker("Tova Mill").page().status()).isEqualTo(200);
        assertThat(parcel.full().path("story").valueStream().map(act -> act.path("what").asString())).containsExactly("RENEWED", "NEW_ADDRESS", "PERSON_GIVEN_BACK", "PERSON_WITHDRAWN", "NEW_ADDRESS", "WENT_ON", "STOPPED", "HANDED_OUT",
                "MADE");
    }

    @Test
    void aPasscodeGuardsEveryWay() {
        TestParcel parcel = new TestParcel().file("map.tif", MAP);
        parcel.sheet.put("open", true).put("passcode", "willow-7").put("byLetter", false);
        parcel.handOut();
        TestParcel.Taker anybody = parcel.taker("");
        assertThat(anybody.page().problem()).isEqualTo("link-passcode-needed");
        assertThat(anybody.page().text()).doesNotContain("map.tif");
        assertThat(anybody.all().status()).isEqualTo(401);
        Http.Answer led = anybody.all("Accept", "text/html,*/*");
        assertThat(led.status()).as("somebody in a browser is led to the page").isEqualTo(303);
        assertThat(led.header("Location")).isEqualTo("/p/" + anybody.token());
        assertThat(anybody.unlock("wrong-one").status()).isEqualTo(403);
        Http.Answer unlocked = anybody.unlock("willow-7");
        assertThat(unlocked.header("Set-Cookie")).contains("Path=/d/" + anybody.token(), "HttpOnly", "SameSite=Strict");
        assertThat(anybody.page("Oak-Ticket", unlocked.json().path("ticket").asString()).json().path("person").isNull()).isTrue();
        assertThat(anybody.all().response().body()).as("by the cookie").isEqualTo(MAP);
        assertThat(parcel.taker("").all().status()).as("whoever has no cookie").isEqualTo(401);
        parcel.sheet.put("passcode", "alder-22");
        assertThat(parcel.save().status()).isEqualTo(200);
        assertThat(anybody.all().status()).as("a ticket of the passcode before").isEqualTo(401);
        TestParcel.Taker guesser = parcel.taker("");
        List<Integer> answers = Stream.generate(() -> guesser.unlock("guess-99").status()).limit(8).toList();
        assertThat(answers).endsWith(429);
    }

    @Test
    void reminderGoesToWhoHasNotTakenEverythingAndNeverToOthers() {
        TestParcel parcel = new TestParcel().person("Vera Sedge").person("Wim Sedge").person("Xen Sedge").file("a.txt", "a".getBytes(StandardCharsets.UTF_8)).file("b.txt", "bb".getBytes(StandardCharsets.UTF_8));
        parcel.sheet.withArray("reminders").addObject().put("days", -3).put("unit", "CALENDAR").put("at", "09:00");
        parcel.handOut();
        deliver();
        parcel.taker("Vera Sedge").all();
        parcel.taker("Wim Sedge").take(1, "a.txt");
        parcel.took("Vera Sedge", 2);
        parcel.took("Wim Sedge", 1);
        ParcelReminders reminders = RunningApp.bean(ParcelReminders.class);
        reminders.look();
        RunningApp.CLOCK.set(Instant.parse("2026-06-12T07:59:00Z"));
        reminders.look();
        assertThat(kinds(parcel, "Wim Sedge")).containsExactly("PARCEL");
        RunningApp.CLOCK.set(Instant.parse("2026-06-12T08:00:10Z"));
        reminders.look();
        reminders.look();
        deliver();
        assertThat(kinds(parcel, "Vera Sedge")).as("has everything").containsExactly("PARCEL");
        assertThat(kinds(parcel, "Wim Sedge")).containsExactly("PICK_UP", "PARCEL");
        assertThat(kinds(parcel, "Xen Sedge")).containsExactly("PICK_UP", "PARCEL");
        assertThat(Outbox.text(Outbox.to("Wim Sedge").get(1))).contains("b.txt").doesNotContain("a.txt");
        assertThat(parcel.act("again").json().path("count").asInt()).as("those two, by hand").isEqualTo(2);
        parcel.taker("Wim Sedge").take(2, "b.txt");
        parcel.took("Wim Sedge", 2);
        parcel.act("stop");
        deliver();
        assertThat(parcel.desk.get("/api/parcels/" + parcel.id + "/letters").json().valueStream().limit(2).map(one -> one.path("state").asString() + " " + one.path("trouble").asString())).containsOnly("STOPPED PARCEL_OVER");
    }

    private static List<String> kinds(TestParcel parcel, String name) {
        return parcel.desk.get("/api/parcels/" + parcel.id + "/letters").json().valueStream().filter(one -> one.path("name").asString().equals(name)).map(one -> one.path("kind").asString()).toList();
    }

    @Test
    void itIsHandedOutByItselfWhenItsFilesAreThereAndGoesOnWhereItStopped() {
        TestParcel parcel = new TestParcel().person("Yara Fen");
        long file = parcel.announce("map.tif", MAP.length).json().get(0).path("id").asLong();
        parcel.sheet.put("whenReady", true);
        assertThat(parcel.save().status()).isEqualTo(200);
        assertThat(parcel.bytes(file, 0, Arrays.copyOf(MAP, 100_000)).json().path("came").asInt()).isEqualTo(100_000);
        Http.Answer wrong = parcel.bytes(file, 50_000, Arrays.copyOfRange(MAP, 50_000, 60_000));
        assertThat(wrong.status()).isEqualTo(409);
        assertThat(wrong.text()).contains("100,000");
        assertThat(parcel.bytes(file, 100_000, content(3, 200_001)).status()).as("more than was announced").isEqualTo(413);
        assertThat(parcel.full().path("parcel").path("state").asString()).isEqualTo("DRAFT");
        assertThat(parcel.bytes(file, 100_000, Arrays.copyOfRange(MAP, 100_000, MAP.length)).status()).isEqualTo(200);
        Waiting.until(() -> parcel.full().path("parcel").path("state").asString(), "LIVE"::equals);
        assertThat(parcel.taker("Yara Fen").all().response().body()).isEqualTo(MAP);
    }

    @Test
    void whatIsMissingOrOddIsSaidAtItsField() {
        TestParcel empty = new TestParcel();
        Http.Answer missing = empty.tryHandOut();
        assertThat(missing.status()).isEqualTo(422);
        assertThat(missing.at("files")).isEqualTo("Put at least one file in");
        assertThat(missing.at("people")).startsWith("Say who gets it");
        TestParcel twice = new TestParcel().person("Zeb Rush").file("a.txt", new byte[] {65});
        twice.sheet.withArray("people").addObject().put("name", "Z. Rush").put("email", "ZEB.rush@example.org");
        assertThat(twice.save().at("people")).isEqualTo("ZEB.rush@example.org is named twice");
        twice.sheet.putArray("people").addObject().put("name", "Zeb").put("email", "zeb at example.org");
        assertThat(twice.save().at("people[0]")).isNotEmpty();
        twice.sheet.putArray("people");
        twice.sheet.put("passcode", "short").put("mostPickUps", 0).put("keptDays", 400).put("title", "");
        Http.Answer several = twice.save();
        assertThat(List.of(several.at("passcode"), several.at("mostPickUps"), several.at("keptDays"))).doesNotContain("");
        twice.sheet.putNull("passcode").putNull("mostPickUps").put("keptDays", 30).put("days", 181);
        assertThat(twice.save().at("days")).isNotEmpty();
        twice.sheet.putNull("days").put("endsOn", "2026-05-01");
        assertThat(twice.save().at("ends")).isNotEmpty();
        twice.sheet.put("endsOn", "yesterday");
        assertThat(twice.save().at("ends")).startsWith("Not a date");
        assertThat(twice.announce("../../etc/passwd", 5).json().get(0).path("name").asString()).isEqualTo("_.._etc_passwd");
        assertThat(twice.announce("a.txt", 5).json().get(0).path("name").asString()).as("no two alike").isEqualTo("a (2).txt");
        assertThat(twice.announce("empty.txt", 0).problem()).isEqualTo("file-empty");
        assertThat(twice.announce(" ", 5).problem()).isEqualTo("file-name");
        assertThat(twice.announce("huge.bin", 1L << 41).status()).isEqualTo(413);
        assertThat(twice.desk.post("/api/parcels/" + twice.id + "/picked", "{\"files\":[999999]}").problem()).isEqualTo("no-file");
        TestParcel virus = new TestParcel().person("Zeb Rush").file("catch.txt", Zips.EICAR);
        Http.Answer caught = virus.tryHandOut();
        assertThat(caught.at("files")).isEqualTo("“catch.txt” is not ready yet");
        assertThat(virus.full().path("files").get(0).path("trouble").asString()).isEqualTo("parcel.malware");
        Http.Answer stale = virus.desk.put("/api/parcels/" + virus.id, virus.sheet.put("version", 1).toString());
        assertThat(stale.problem()).isEqualTo("changed-elsewhere");
        assertThat(virus.desk.send("DELETE", "/api/parcels/" + virus.id, null).status()).isEqualTo(204);
        assertThat(virus.desk.get("/api/parcels/" + virus.id).problem()).isEqualTo("no-parcel");
        TestParcel out = new TestParcel().person("Zeb Rush").file("a.txt", new byte[] {65}).handOut();
        assertThat(out.announce("late.txt", 1).problem()).isEqualTo("parcel-handed-out");
        assertThat(out.desk.send("DELETE", "/api/parcels/" + out.id, null).problem()).isEqualTo("parcel-handed-out");
    }

    /** What is asked in addresses is bounded before anything is done for it. */
    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource(delimiter = '|', value = {"chosen.zip?files=1-999999|200", "chosen.zip?files=9|404", "chosen.zip?files=|400", "chosen.zip?files=1-|400", "chosen.zip?files=-1|400", "chosen.zip?files=1%20OR%201|400", "99/x|404",
        "1/..%2F..%2Fx|400", "x/y|404", "look/99|404", "chosen.zip?files=1,1,1|200"})
    void oddAddressesAreRefused(String path, int status) {
        TestParcel parcel = new TestParcel().person("Abe Weir").file("a.txt", new byte[] {65}).handOut();
        assertThat(new Http().get("/d/" + parcel.taker("Abe Weir").token() + "/" + path).status()).isEqualTo(status);
    }

    /** The files put in are destroyed on their date; what was picked stays in its folder, and who got what stays on record. */
    @Test
    void endedParcelsArePurgedOnTheirDate() throws IOException {
        TestRound round = new TestRound().onlyPeople("Bea Holt").open();
        round.personal("Bea Holt").begin().send(1, "c.pdf", TestRound.pdf("stays"));
        JsonNode received = round.panel("Bea Holt").path("files").get(0);
        TestParcel parcel = new TestParcel().person("Bea Holt").file("own.bin", MAP);
        parcel.desk.post("/api/parcels/" + parcel.id + "/picked", "{\"files\":[" + received.path("id") + "]}");
        parcel.handOut();
        parcel.taker("Bea Holt").take(1, "own.bin");
        parcel.took("Bea Holt", 1);
        Path folder = RunningApp.DATA.resolve("parcels");
        Parcels parcels = RunningApp.bean(Parcels.class);
        RunningApp.CLOCK.set(Instant.parse("2026-07-15T08:59:00Z"));
        parcels.purge();
        assertThat(holds(folder, MAP)).isTrue();
        RunningApp.CLOCK.set(Instant.parse("2026-07-15T09:01:00Z"));
        parcels.purge();
        assertThat(holds(folder, MAP)).isFalse();
        assertThat(RunningApp.DATA.resolve("files").resolve(received.path("path").asString())).hasBinaryContent(TestRound.pdf("stays"));
        assertThat(parcel.full().path("parcel").path("state").asString()).isEqualTo("PURGED");
        assertThat(parcel.full().path("took")).hasSize(1);
        assertThat(parcel.taker("Bea Holt").page().problem()).isEqualTo("parcel-ended");
        assertThat(parcel.desk.post("/api/parcels/" + parcel.id + "/renew", "{\"days\":7}").problem()).isEqualTo("parcel-purged");
    }

    private static boolean holds(Path folder, byte[] content) throws IOException {
        try (Stream<Path> files = Files.list(folder)) {
            return files.anyMatch(file -> {
                try {
                    return Files.size(file) == content.length && Arrays.equals(Files.readAllBytes(file), content);
                } catch (IOException gone) {
                    return false;
                }
            });
        }
    }

    /** A picked file that is taken out of the folders cannot be taken away any more, and can when it is put back. */
    @Test
    void aPickedFileThatIsRemovedIsGone() {
        TestRound round = new TestRound().onlyPeople("Cy Lock").open();
        round.personal("Cy Lock").begin().send(1, "c.pdf", TestRound.pdf("to go"));
        long received = round.panel("Cy Lock").path("files").get(0).path("id").asLong();
        TestParcel parcel = new TestParcel().person("Cy Lock").file("own.txt", new byte[] {65});
        parcel.desk.post("/api/parcels/" + parcel.id + "/picked", "{\"files\":[" + received + "]}");
        parcel.handOut();
        parcel.desk.post("/api/removals/" + received, "{\"reason\":\"mistake\"}");
        TestParcel.Taker cy = parcel.taker("Cy Lock");
        assertThat(cy.page().json().path("files").get(1).path("gone").asBoolean()).isTrue();
        assertThat(cy.take(2, "x").problem()).isEqualTo("parcel-file-gone");
        assertThat(unzipped(cy.all().response().body())).as("what is there, and what is not by its name").hasEntrySatisfying(parcel.sheet.path("title").asString() + "/own.txt", own -> assertThat(own).isNotEmpty())
                .hasEntrySatisfying(parcel.sheet.path("title").asString() + "/Not included.txt", text -> assertThat(new String(text, StandardCharsets.UTF_8)).contains("- Cy Lock - Consent.pdf")).hasSize(2);
        assertThat(cy.take(1, "own.txt").status()).isEqualTo(200);
        parcel.desk.post("/api/removals/" + received + "/undo", "");
        assertThat(cy.take(2, "x").response().body()).isEqualTo(TestRound.pdf("to go"));
    }

    /** The bell and the digest tell whoever handed something out what was taken, once. */
    @Test
    void whoHandsOutIsToldWhatWasTaken() {
        Http desk = Http.desk();
        TestParcel parcel = new TestParcel().person("Fay Brook").file("a.txt", new byte[] {65}).file("b.txt", new byte[] {66, 67}).handOut();
        JsonNode before = desk.get("/api/bell").json();
        desk.post("/api/bell/seen", Http.JSON.createObjectNode().put("upToFile", before.path("upToFile").asLong()).put("upToMail", before.path("upToMail").asLong()).put("upToTaken", before.path("upToTaken").asString()).toString());
        assertThat(desk.put("/api/digest", "{\"plan\":\"AT_ONCE\",\"muted\":[]}").status()).isEqualTo(200);
        try {
            parcel.taker("Fay Brook").all();
            parcel.took("Fay Brook", 2);
            JsonNode rings = desk.get("/api/bell").json();
            assertThat(rings.path("takings").valueStream().filter(one -> one.path("person").asString().equals("Fay Brook")).map(one -> one.path("files").asInt())).containsExactly(2);
            assertThat(rings.path("taken").asInt()).isGreaterThanOrEqualTo(2);
            RunningApp.CLOCK.set(RunningApp.CLOCK.instant().plusSeconds(3_600));
            int letters = Outbox.to("Robin Fenn").size();
            DigestLooks.twice(RunningApp.bean(DigestLooks.TYPE));
            List<jakarta.mail.internet.MimeMessage> told = Outbox.to("Robin Fenn");
            assertThat(told).hasSize(letters + 1);
            assertThat(Outbox.text(told.get(letters))).contains("Fay Brook, Mon 1 Jun", "2 files of “" + parcel.sheet.path("title").asString() + "”", "/parcels/" + parcel.id);
            desk.post("/api/bell/seen", Http.JSON.createObjectNode().put("upToFile", rings.path("upToFile").asLong()).put("upToMail", rings.path("upToMail").asLong()).put("upToTaken", rings.path("upToTaken").asString()).toString());
            assertThat(desk.get("/api/bell").text()).doesNotContain("Fay Brook");
        } finally {
            desk.put("/api/digest", "{\"plan\":\"NEVER\",\"muted\":[]}");
        }
    }

    @Test
    void peopleAreAddedLaterAndAPaperCarriesTheLink() throws Exception {
        TestParcel parcel = new TestParcel().person("Dot Marsh").file("a.txt", new byte[] {65}).handOut();
        Http.Answer added = parcel.desk.post("/api/parcels/" + parcel.id + "/people", "{\"people\":[{\"name\":\"Dot Marsh\",\"email\":\"dot.marsh@example.org\"},{\"name\":\"Eve Lode\",\"email\":\"eve.lode@example.org\"}],\"byLetter\":true}");
        assertThat(added.json().path("count").asInt()).as("who has a link gets no second one").isEqualTo(1);
        assertThat(parcel.full().path("ways")).hasSize(2);
        long link = parcel.way("Eve Lode").path("id").asLong();
        assertThat(parcel.desk.get("/api/parcel-handouts/" + link + "/qr.svg").text()).startsWith("<svg");
        Http.Answer sheet = parcel.desk.post("/api/parcel-handouts", "{\"parcel\":" + parcel.id + ",\"links\":[" + link + "],\"passcode\":\"\"}", "Accept", "application/pdf");
        Path pdf = RunningApp.freshFolder().resolve("sheet.pdf");
        Files.write(pdf, sheet.response().body());
        Process reading = new ProcessBuilder("pdftotext", "-layout", pdf.toString(), "-").start();
        String said = new String(reading.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertThat(said).contains("hands out", "For Eve Lode", "Can be taken away until", "a.txt").contains(parcel.taker("Eve Lode").token());
        AtomicInteger events = new AtomicInteger();
        List<String> titles = new ArrayList<>();
        parcel.desk.get("/api/parcels?find=eve%20lode").json().path("parcels").forEach(one -> titles.add(one.path("title").asString() + events.incrementAndGet()));
        assertThat(titles).containsExactly(parcel.sheet.path("title").asString() + "1");
    }

    /** Who asks in one of the six languages is refused in it. */
    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource(delimiter = '|', value = {"en|This link does not work", "de-AT,de;q=0.9|Dieser Link geht nicht", "fr|Ce lien ne marche pas", "es-MX|Este enlace no funciona", "pl|Ten link nie działa", "ar|هذا الرابط لا يعمل", "tlh|This link does not work"})
    void aRefusalIsInTheLanguageOfWhoeverAsks(String languages, String title) {
        Http stranger = new Http();
        assertThat(stranger.get("/api/pick-up", "Oak-Link", "nothing", "Accept-Language", languages).json().path("title").asString()).isEqualTo(title);
        assertThat(stranger.get("/d/nothing/all", "Accept-Language", languages).json().path("title").asString()).isEqualTo(title);
        assertThat(stranger.get("/p/nothing", "Accept-Language", languages).text()).contains(title);
    }

    @Test
    void itBeginsWhenItsWindowDoes() {
        TestParcel parcel = new TestParcel().person("Gwen Mere").file("a.txt", new byte[] {65});
        parcel.sheet.put("beginsOn", "2026-06-03").put("beginsAt", "12:00");
        parcel.handOut();
        TestParcel.Taker gwen = parcel.taker("Gwen Mere");
        assertThat(parcel.full().path("parcel").path("state").asString()).isEqualTo("WAITING");
        assertThat(gwen.page().problem()).isEqualTo("link-not-begun");
        assertThat(gwen.all().status()).isEqualTo(403);
        RunningApp.CLOCK.set(Instant.parse("2026-06-03T10:59:59Z"));
        assertThat(gwen.page().status()).as("noon in London is 11:00 UTC").isEqualTo(403);
        RunningApp.CLOCK.set(Instant.parse("2026-06-03T11:00:00Z"));
        assertThat(gwen.all().status()).isEqualTo(200);
        assertThat(parcel.full().path("parcel").path("endsAt").asString()).as("14 days from its beginning").isEqualTo("2026-06-17T11:00:00Z");
    }

    /** Each file once a person: what was taken alone cannot be taken in an archive again, and the rest can. */
    @Test
    void aLimitHoldsForEachFileHoweverItIsTaken() {
        TestParcel parcel = new TestParcel().person("Hal Wold").person("Ina Wold").file("a.txt", new byte[] {65}).file("b.txt", new byte[] {66}).file("c.txt", new byte[] {67});
        parcel.sheet.put("mostPickUps", 1);
        parcel.handOut();
        TestParcel.Taker hal = parcel.taker("Hal Wold");
        assertThat(hal.take(1, "a.txt").status()).isEqualTo(200);
        parcel.took("Hal Wold", 1);
        Http.Answer all = hal.all();
        assertThat(all.status()).isEqualTo(410);
        assertThat(all.text()).contains("a.txt").contains("1 times");
        assertThat(unzipped(hal.http().get("/d/" + hal.token() + "/chosen.zip?files=2-3").response().body())).hasSize(2);
        parcel.took("Hal Wold", 3);
        assertThat(hal.take(3, "c.txt").status()).isEqualTo(410);
        assertThat(hal.page().json().path("files").valueStream().map(file -> file.path("taken").asInt() + " " + file.path("look").asString())).containsOnly("1 NONE");
        assertThat(parcel.taker("Ina Wold").all().status()).as("others have their own").isEqualTo(200);
    }

    /** An archive is the same to the last byte each time, whatever was taken meanwhile; else nobody could go on with one. */
    @Test
    void anArchiveOfManyFilesIsTheSameEachTime() {
        TestParcel parcel = new TestParcel().person("Jo Sike");
        StringBuilder ahead = new StringBuilder();
        for (int n = 1; n <= 300; n++) {
            ahead.append(n == 1 ? "" : ",").append("{\"name\":\"n").append(n).append(".txt\",\"bytes\":3}");
        }
        JsonNode places = parcel.desk.post("/api/parcels/" + parcel.id + "/files", "{\"files\":[" + ahead + "]}").json();
        places.forEach(place -> parcel.bytes(place.path("id").asLong(), 0, "%03d".formatted(place.path("id").asLong() % 1_000).getBytes(StandardCharsets.US_ASCII)));
        parcel.handOut();
        TestParcel.Taker jo = parcel.taker("Jo Sike");
        assertThat(jo.page().json().path("count").asInt()).isEqualTo(300);
        Http.Answer first = jo.all();
        parcel.took("Jo Sike", 300);
        Http.Answer second = jo.all();
        assertThat(second.response().body()).isEqualTo(first.response().body());
        assertThat(second.header("ETag")).isEqualTo(first.header("ETag"));
        assertThat(unzipped(first.response().body())).hasSize(300);
        assertThat(unzipped(jo.http().get("/d/" + jo.token() + "/chosen.zip?files=1-10,100,290-300").response().body())).hasSize(22);
        assertThat(jo.http().get("/api/pick-up/files?from=298", "Oak-Link", jo.token()).json()).hasSize(2);
        assertThat(jo.http().get("/api/pick-up/files?from=-5", "Oak-Link", jo.token()).json()).hasSize(300);
    }

    /** Numbers of one parcel say nothing in another, and the second of two coordinators is told. */
    @Test
    void nothingReachesIntoAnotherParcel() {
        TestParcel mine = new TestParcel().person("Kip Carr").file("a.txt", new byte[] {65});
        TestParcel other = new TestParcel().person("Lys Carr").file("b.txt", new byte[] {66});
        long theirs = other.full().path("files").get(0).path("id").asLong();
        assertThat(mine.bytes(theirs, 0, new byte[] {67}).status()).isEqualTo(404);
        assertThat(mine.desk.send("DELETE", "/api/parcels/" + mine.id + "/files/" + theirs, null).status()).isEqualTo(404);
        mine.handOut();
        other.handOut();
        long link = other.way("Lys Carr").path("id").asLong();
        for (String act : List.of("withdraw", "give-back", "address")) {
            assertThat(mine.act("links/" + link + "/" + act).status()).as(act).isEqualTo(404);
        }
        assertThat(other.taker("Lys Carr").page().status()).isEqualTo(200);
        assertThat(mine.desk.post("/api/parcels/" + mine.id + "/again", "{\"links\":[" + link + "]}").json().path("count").asInt()).isZero();
        int version = mine.full().path("version").asInt();
        mine.sheet.put("version", version).put("title", "First");
        assertThat(mine.desk.put("/api/parcels/" + mine.id, mine.sheet.toString()).status()).isEqualTo(200);
        Http.Answer second = Http.freshDesk().put("/api/parcels/" + mine.id, mine.sheet.put("title", "Second").toString());
        assertThat(second.status()).isEqualTo(409);
        assertThat(second.problem()).isEqualTo("changed-elsewhere");
        assertThat(mine.full().path("parcel").path("title").asString()).isEqualTo("First");
    }

    /** As many as fit, and one more. */
    @Test
    void whatIsTooManyIsRefusedWhole() {
        TestParcel parcel = new TestParcel();
        for (int n = 0; n < 1_000; n++) {
            parcel.sheet.withArray("people").addObject().put("name", "Person " + n).put("email", "person." + n + "@many.example.org");
        }
        assertThat(parcel.save().status()).isEqualTo(200);
        parcel.sheet.withArray("people").addObject().put("name", "One more").put("email", "one.more@many.example.org");
        assertThat(parcel.save().at("people")).isEqualTo("At most 1,000 people");
        assertThat(parcel.full().path("people")).hasSize(1_000);
        String many = "{\"name\":\"n.txt\",\"bytes\":1},".repeat(9_999) + "{\"name\":\"n.txt\",\"bytes\":1}";
        assertThat(parcel.desk.post("/api/parcels/" + parcel.id + "/files", "{\"files\":[" + many + ",{\"name\":\"n.txt\",\"bytes\":1}]}").status()).isEqualTo(400);
        assertThat(parcel.desk.post("/api/parcels/" + parcel.id + "/files", "{\"files\":[" + many + ",null]}").status()).isEqualTo(400);
        assertThat(parcel.full().path("files")).isEmpty();
        assertThat(parcel.announce("x".repeat(256), 1).problem()).isEqualTo("file-name");
        assertThat(parcel.desk.post("/api/parcels/" + parcel.id + "/files", "{\"files\":[{\"name\":\"" + "x".repeat(4 << 20) + "\",\"bytes\":1}]}").status()).isEqualTo(413);
        parcel.sheet.putArray("people");
        for (int n = 0; n < 9; n++) {
            parcel.sheet.withArray("reminders").addObject().put("days", -n).put("at", "09:00");
        }
        assertThat(parcel.save().at("reminders")).isEqualTo("At most 8 reminders");
        parcel.sheet.putArray("reminders").addObject().put("days", 1).put("at", "09:00");
        assertThat(parcel.save().at("reminders[0]")).isNotEmpty();
        parcel.sheet.putArray("reminders").addObject().put("days", -1).put("at", "nine");
        assertThat(parcel.save().at("reminders[0]")).startsWith("Not a time");
    }

    /** What the API description says can be typed is taken, and one more is refused at its field: the desk takes its limits from there. */
    @ParameterizedTest
    @CsvSource({"title", "message", "name", "days", "mostPickUps", "keptDays"})
    void theSheetIsTakenUpToTheLimitsItsDescriptionTells(String field) {
        TestParcel parcel = new TestParcel();
        JsonNode described = parcel.desk.get("/api/openapi.json").json().path("components").path("schemas").path("ParcelSheet").path("properties").path(field);
        for (int over = 0; over < 2; over++) {
            if (described.has("maxLength")) {
                parcel.sheet.put(field, "x".repeat(described.path("maxLength").asInt() + over));
            } else {
                parcel.sheet.put(field, described.path("maximum").asInt() + over);
            }
            Http.Answer answer = parcel.save();
            assertThat(answer.status()).as(answer.text()).isEqualTo(over == 0 ? 200 : 422);
            assertThat(over == 0 || !answer.at(field).isEmpty()).isTrue();
        }
        if (described.has("minimum")) {
            parcel.sheet.put(field, described.path("minimum").asInt());
            assertThat(parcel.save().status()).isEqualTo(200);
            parcel.sheet.put(field, described.path("minimum").asInt() - 1);
            assertThat(parcel.save().at(field)).isNotEmpty();
        }
    }
}
