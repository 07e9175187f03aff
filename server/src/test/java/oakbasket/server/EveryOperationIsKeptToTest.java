package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import oakbasket.core.team.Role;
import org.assertj.core.api.SoftAssertions;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.jdbc.core.simple.JdbcClient;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * Every operation that changes something of a round or a parcel, with a body that its owner gets through: a colleague with whom it is not shared asks the very same a moment before, and so does somebody who only reads. They get
 * nothing, nothing changes, and then it does for the owner.
 */
class EveryOperationIsKeptToTest {

    private static final String MARK = "Nightjar";
    private static final Instant NOW = Instant.parse("2026-06-01T09:00:00Z");
    /** What is of the whole office, one's own, or made anew: there is nothing in it that only some may see. */
    private static final Set<String> OF_EVERYBODY = Set.of("app-passwords", "audit", "bell", "brand", "calendars", "contact-acts", "contacts", "digest", "feed", "findings", "forms", "groups", "inward", "kept-plans", "letter-settings",
            "letter-texts", "mail-servers", "passkeys", "patterns", "people", "post", "post-office", "roots", "second-factor", "session", "sessions", "team", "team-settings", "templates", "today");

    /** Likewise: made anew, or a paper that came by post and is nobody's yet. */
    private static final Set<String> NOTHING_THERE = Set.of("POST /api/rounds", "POST /api/parcels", "POST /api/exchanges", "POST /api/loose", "POST /api/loose/{id}/out", "POST /api/loose/{id}/back");

    private final TestTeam owner = TestTeam.of(Role.COORDINATOR);
    private final TestTeam administrator = TestTeam.of(Role.ADMINISTRATOR);
    private final TestTeam colleague = TestTeam.of(Role.COORDINATOR);
    private final TestTeam reader = TestTeam.of(Role.READER);
    private final Set<String> tried = new TreeSet<>();
    private final SoftAssertions all = new SoftAssertions();
    private final TestRound round = new TestRound(owner.desk).onlyPeople("Ada Kept", "Ben Kept", "Cal Kept");
    private boolean asAdministrator;

    @BeforeEach
    @AfterEach
    void setTheClockBack() {
        RunningApp.CLOCK.set(NOW);
    }

    /** Asks the same as those who must get nothing, and then as the owner. @param path the path of the description, with what stands for its parts in their order */
    private Http.Answer kept(String method, String path, String body, Object... parts) {
        return kept(method, path, "", body.getBytes(StandardCharsets.UTF_8), "application/json", parts);
    }

    private Http.Answer kept(String method, String path, String query, byte[] body, String type, Object... parts) {
        String concrete = path;
        for (Object part : parts) {
            concrete = concrete.replaceFirst("\\{[^}]+}", String.valueOf(part));
        }
        tried.add(method + " " + path);
        String operation = method + " " + path;
        String before = standing();
        for (TestTeam other : List.of(colleague, reader)) {
            Http.Answer refused = other.desk.send(method, concrete + query, body, "Content-Type", type);
            boolean nothing = refused.status() < 300 && refused.text().matches("(?s).*\"(changed|count|letters|made|taken)\":0\\b.*|\\[]|");
            if (!nothing) {
                all.assertThat(refused.status()).as("%s %s: %s", other.account.role(), operation, refused.text()).isIn(403, 404, 409, 410, 422);
            }
            all.assertThat(refused.text()).as("%s %s", other.account.role(), operation).doesNotContain(MARK);
        }
        all.assertThat(standing()).as("%s changed nothing", operation).isEqualTo(before);
        Http.Answer done = (asAdministrator ? administrator : owner).desk.send(method, concrete + query, body, "Content-Type", type, "Accept", "application/pdf, application/json");
        all.assertThat(done.status()).as("the owner gets through %s: %s", operation, done.text()).isLessThan(300);
        return done;
    }

    private final List<String> watched = new ArrayList<>();

    /** All that the owner sees of it. */
    private String standing() {
        return watched.stream().map(path -> owner.desk.get(path).text().replaceAll("\"(now|checkedAt|lookedAt)\":\"[^\"]*\"", "")).collect(Collectors.joining("\n"));
    }

    private void privately(long id) {
        assertThat(owner.desk.put("/api/sharing/" + id, share(false)).status()).isEqualTo(200);
    }

    private String share(boolean office) {
        return "{\"owner\":" + owner.id() + ",\"wholeOffice\":" + office + ",\"with\":[]}";
    }

    private static String json(Object... pairs) {
        Map<String, Object> all = new LinkedHashMap<>();
        for (int n = 0; n < pairs.length; n += 2) {
            all.put((String) pairs[n], pairs[n + 1]);
        }
        return Http.JSON.writeValueAsString(all);
    }

    private String basket(String name) {
        JsonNode row = round.row(name);
        return "{\"id\":" + row.path("id") + ",\"version\":" + row.path("version") + "}";
    }

    private long send(String person, int item, String name) {
        TestRound.Sender sender = round.personal(person).begin();
        Http.Answer sent = item == 1 ? sender.send(1, name, TestRound.pdf(name)) : sender.send(item, name, name.getBytes(StandardCharsets.UTF_8));
        assertThat(sent.status()).as(sent.text()).isEqualTo(201);
        sender.finish();
        return newest(person);
    }

    private long newest(String person) {
        return round.panel(person).path("files").valueStream().mapToLong(file -> file.path("id").asLong()).max().orElseThrow();
    }

    private JsonNode of(String path) {
        return owner.desk.get(path).json();
    }

    @Test
    void everyOperationIsKeptToThoseWhoSeeIt() throws IOException {
        drafts();
        letters();
        links();
        baskets();
        files();
        filing();
        rounds();
        parcels();
        exchanges();
        all.assertAll();
        try (Stream<String> lines = Files.lines(Path.of("src/test/resources/permissions.txt"), StandardCharsets.UTF_8)) {
            Set<String> left = lines.filter(line -> !line.startsWith("#") && !line.isBlank()).map(line -> line.split(" +")).filter(parts -> !parts[1].equals("GET")).map(parts -> parts[1] + " " + parts[2])
                    .filter(operation -> !OF_EVERYBODY.contains(operation.split("/")[2])).collect(Collectors.toCollection(TreeSet::new));
            left.removeAll(tried);
            left.removeAll(NOTHING_THERE);
            assertThat(left).as("operations that nobody tried").isEmpty();
        }
    }

    private void drafts() {
        round.sheet.put("title", MARK + " round").put("openLink", true).put("passcode", "");
        round.item(MARK + " notes", false, 1, 9, 1);
        round.withLetters("{\"invite\":true}").begin();
        watched.addAll(List.of("/api/rounds/" + round.id + "/sheet", "/api/sharing/" + round.id));
        kept("PUT", "/api/sharing/{round}", share(true), round.id);
        privately(round.id);
        kept("PUT", "/api/sharing/{round}", share(false), round.id);
        int version = of("/api/rounds/" + round.id + "/sheet").path("head").path("version").asInt();
        ObjectNode save = Http.JSON.createObjectNode().put("version", version);
        save.set("sheet", round.sheet);
        version = kept("PUT", "/api/rounds/{id}/sheet", save.toString(), round.id).json().path("version").asInt(version + 1);
        kept("POST", "/api/rounds/{id}/rehearsal/who", json("name", "Ada", "email", "ada@example.org"), round.id);
        kept("POST", "/api/rounds/{id}/rehearsal/files", "?item=1&name=good.pdf", TestRound.pdf("good"), "application/octet-stream", round.id);
        kept("POST", "/api/rounds/{id}/open", json("version", of("/api/rounds/" + round.id + "/sheet").path("head").path("version").asInt()), round.id);
        TestRound thrown = new TestRound(owner.desk).onlyPeople("Zed Kept");
        thrown.begin();
        privately(thrown.id);
        kept("DELETE", "/api/rounds/{id}", "", thrown.id);
        watched.clear();
        watched.addAll(List.of("/api/rounds/" + round.id + "/board", "/api/links?round=" + round.id, "/api/letters?round=" + round.id, "/api/rules/" + round.id, "/api/sharing/" + round.id, "/api/frames/" + round.id, "/api/rounds/" + round.id + "/acts"));
    }

    private void letters() {
        JsonNode letter = of("/api/letters?round=" + round.id).path("letters").get(0);
        long id = letter.path("id").asLong();
        kept("POST", "/api/letters/{id}/stop", "", id);
        kept("POST", "/api/letters/{id}/again", "", id);
        RunningApp.bean(JdbcClient.class).sql("UPDATE letter SET state = 'UNCERTAIN' WHERE id = :id").param("id", id).update();
        kept("POST", "/api/letters/{id}/arrived", "", id);
        String everybody = "{\"baskets\":[" + round.row("Cal Kept").path("id") + "]}";
        kept("POST", "/api/rounds/{id}/letters/preview", everybody, round.id);
        for (JsonNode one : of("/api/letters?round=" + round.id).path("letters")) {
            owner.desk.post("/api/letters/" + one.path("id") + "/stop", "");
        }
        long batch = kept("POST", "/api/rounds/{id}/letters", everybody, round.id).json().path("batch").asLong();
        kept("POST", "/api/letters/batches/{batch}/stop", "", batch);
    }

    private void links() throws IOException {
        JsonNode link = of("/api/links?round=" + round.id).path("links").get(0);
        long id = link.path("id").asLong();
        kept("POST", "/api/links/acts", "{\"kind\":\"PAUSE\",\"ids\":[" + id + "]}");
        long act = of("/api/links/" + id).path("story").valueStream().filter(one -> one.path("id").asLong() > 0).findFirst().orElseThrow().path("id").asLong();
        kept("POST", "/api/links/acts/{id}/undo", "", act);
        kept("POST", "/api/links/{id}/address", json("version", of("/api/links/" + id).path("link").path("version").asInt()), id);
        kept("PUT", "/api/links/{id}/passcode", json("version", of("/api/links/" + id).path("link").path("version").asInt(), "passcode", "kingfisher"), id);
        kept("PUT", "/api/links/{id}/terms", json("version", of("/api/links/" + id).path("link").path("version").asInt(), "ends", "GATHERING"), id);
        owner.desk.put("/api/links/" + id + "/passcode", json("version", of("/api/links/" + id).path("link").path("version").asInt(), "passcode", ""));
        kept("POST", "/api/links/folders/{round}", "", round.id);
        kept("POST", "/api/handouts", "{\"links\":[" + id + "],\"passcode\":\"\"}");
        asAdministrator = true;
        kept("PUT", "/api/frames/{round}", "{\"origins\":[\"https://www.example.org\"]}", round.id);
        asAdministrator = false;
        kept("POST", "/api/presence/{round}", "{\"basket\":null}", round.id);
        kept("DELETE", "/api/presence/{round}", "", round.id);
    }

    private void baskets() {
        long ben = round.row("Ben Kept").path("id").asLong();
        long act = kept("POST", "/api/rounds/{id}/acts", "{\"kind\":\"EXCUSE\",\"on\":true,\"reason\":\"\",\"baskets\":[" + basket("Ben Kept") + "]}", round.id).json().path("act").asLong();
        kept("POST", "/api/acts/{id}/undo", "", act == 0 ? of("/api/rounds/" + round.id + "/acts").get(0).path("id").asLong() : act);
        kept("POST", "/api/rounds/{id}/people", "{\"people\":[{\"name\":\"Dee Kept\",\"email\":\"dee.kept@example.org\"}],\"groups\":[]}", round.id);
        kept("POST", "/api/baskets/{id}/handed-over", "", round.row("Dee Kept").path("id").asLong());
        send("Ben Kept", 1, "consent.pdf");
        JsonNode accepted = kept("POST", "/api/baskets/{id}/accept-all", "", ben).json();
        kept("POST", "/api/files/unaccept", accepted.toString());
        kept("POST", "/api/files/{id}/review", json("from", "NONE", "to", "RETURNED", "reason", "unsigned"), newest("Ben Kept"));
        TestRound.Sender stranger = round.openLink();
        stranger.begin("Ada", round.row("Ada Kept").path("email").asString());
        assertThat(stranger.send(1, "claimed.pdf", TestRound.pdf("claimed")).status()).isEqualTo(201);
        stranger.finish();
        kept("POST", "/api/claims/{submission}", json("from", "OPEN", "to", "ACCEPTED"), round.panel("Ada Kept").path("files").get(0).path("submissionId").asLong());
    }

    private void files() {
        long one = send("Cal Kept", 2, "first of cal.txt");
        long two = send("Cal Kept", 2, "second of cal.txt");
        String folder = MARK + " round";
        kept("POST", "/api/folders/files/{id}/name", json("name", "Renamed of cal.txt"), one);
        kept("POST", "/api/folders/new", json("path", folder, "name", "Sorted"));
        kept("POST", "/api/folders/files", "{\"files\":[" + one + "],\"root\":1,\"path\":\"" + folder + "/Sorted\"}");
        kept("POST", "/api/folders/move", json("path", folder + "/Sorted", "toPath", folder, "name", "Done"));
        owner.desk.post("/api/folders/new", json("path", folder, "name", "Empty"));
        kept("POST", "/api/folders/remove", json("path", folder + "/Empty"));
        kept("POST", "/api/removals/{file}", json("reason", "twice"), two);
        kept("POST", "/api/removals/{file}/undo", "", two);
        kept("POST", "/api/retention/{round}/hold", json("reason", "an audit"), round.id);
        kept("POST", "/api/retention/{round}/release", "", round.id);
        TestRound.Sender ill = round.personal("Cal Kept").begin();
        for (String name : List.of("ill one.txt", "ill two.txt")) {
            ill.send(2, name, Zips.EICAR);
        }
        List<Long> held = of("/api/quarantine").path("files").valueStream().filter(file -> file.path("name").asString().startsWith("ill ")).map(file -> file.path("id").asLong()).toList();
        assertThat(held).hasSizeGreaterThanOrEqualTo(1);
        asAdministrator = true;
        kept("POST", "/api/quarantine/{id}/release", "", held.get(0));
        kept("POST", "/api/quarantine/{id}/destroy", "", held.get(held.size() - 1));
        kept("PUT", "/api/space/{of}/{id}", json("mostMebibytes", 5_000), "ROUND", round.id);
        asAdministrator = false;
    }

    private void filing() {
        String rules = "[{\"name\":\"" + MARK + " rule\",\"conditions\":[{\"subject\":\"NAME\",\"test\":\"CONTAINS\",\"value\":\"second\"}],\"place\":{\"root\":1,\"folder\":\"{round}/Seconds\",\"name\":\"\"}}]";
        kept("POST", "/api/rules/{round}/check", json("rules", Http.JSON.readTree(rules)), round.id);
        kept("PUT", "/api/rules/{round}", json("version", of("/api/rules/" + round.id).path("version").asInt(), "rules", Http.JSON.readTree(rules)), round.id);
        JsonNode trial = kept("POST", "/api/refilings/trial", json("roundId", round.id, "rules", Http.JSON.readTree(rules))).json();
        long batch = kept("POST", "/api/refilings", "{\"roundId\":" + round.id + ",\"last\":" + trial.path("last") + ",\"seal\":" + trial.path("seal") + "}").json().path("id").asLong();
        Waiting.until(() -> of("/api/refilings/" + batch), one -> !one.path("ended").isNull() && !one.path("endedAt").isNull());
        kept("POST", "/api/refilings/{id}/undo", "", batch);
        kept("POST", "/api/rules/{round}/back", json("version", of("/api/rules/" + round.id).path("version").asInt(), "to", 0), round.id);
        JsonNode moved = of("/api/journal?round=" + round.id).path("lines").valueStream().filter(line -> line.path("canUndo").asBoolean()).findFirst().orElse(Http.JSON.missingNode());
        kept("POST", "/api/journal/{id}/undo", "", moved.path("id").asLong());
        owner.desk.put("/api/rules/" + round.id, json("version", of("/api/rules/" + round.id).path("version").asInt(), "rules",
                Http.JSON.readTree("[{\"conditions\":[{\"subject\":\"NAME\",\"test\":\"CONTAINS\",\"value\":\"tray\"}],\"tray\":true}]")));
        long waits = send("Cal Kept", 2, "for the tray.txt");
        long decided = kept("POST", "/api/tray", "{\"files\":[" + waits + "]}").json().path("id").asLong();
        kept("POST", "/api/tray/{act}/undo", "", decided);
    }

    private void rounds() {
        long copy = kept("POST", "/api/rounds/{id}/copy", "", round.id).json().path("head").path("id").asLong();
        all.assertThat(colleague.desk.get("/api/rounds/" + copy + "/sheet").status()).as("a copy is shared like what it is a copy of").isEqualTo(404);
        all.assertThat(of("/api/sharing/" + copy).path("wholeOffice").asBoolean(true)).isFalse();
        String terms = "{\"rule\":\"FREQ=MONTHLY;BYMONTHDAY=12\",\"startsOn\":\"2027-06-12\",\"opensDaysBefore\":10,\"opensItself\":false}";
        long series = kept("POST", "/api/series", "{\"roundId\":" + round.id + ",\"terms\":" + terms + "}").json().path("id").asLong();
        all.assertThat(colleague.desk.get("/api/series").text()).doesNotContain(MARK);
        kept("PUT", "/api/series/{id}", "{\"version\":1,\"terms\":" + terms + "}", series);
        kept("POST", "/api/series/{id}/pause", "{\"paused\":true}", series);
        kept("DELETE", "/api/series/{id}", "", series);
        tried.add("POST /api/series/preview");
        JsonNode changing = of("/api/rounds/" + round.id + "/change");
        String change = "{\"version\":" + changing.path("version") + ",\"dropPasscode\":false,\"sheet\":" + changing.path("sheet") + "}";
        kept("POST", "/api/rounds/{id}/change/preview", change, round.id);
        kept("POST", "/api/rounds/{id}/change", change, round.id);
        TestRound planned = new TestRound(owner.desk).onlyPeople("Pip Kept").withLetters("{\"invite\":false,\"steps\":[{\"kind\":\"REMINDER\",\"days\":-3,\"unit\":\"CALENDAR\",\"at\":\"09:00\"}]}");
        planned.sheet.put("title", MARK + " plan");
        planned.open();
        privately(planned.id);
        JsonNode letter = of("/api/outlook?round=" + planned.id).path("days").get(0).path("letters").get(0);
        long batch = kept("POST", "/api/outlook/changes", "{\"roundId\":" + planned.id + ",\"at\":" + letter.path("at") + ",\"baskets\":null,\"act\":\"SKIP\"}").json().path("batch").asLong();
        kept("POST", "/api/outlook/changes/{batch}/undo", "", batch);
        long paper = owner.desk.send("POST", "/api/loose?name=by%20post.txt", "by post".getBytes(StandardCharsets.UTF_8), "Content-Type", "application/octet-stream").json().path("id").asLong();
        long item = of("/api/tray/choices/" + round.id).path("items").get(1).path("id").asLong();
        kept("POST", "/api/loose/file", "{\"ids\":[" + paper + "],\"basketId\":" + round.row("Cal Kept").path("id") + ",\"itemId\":" + item + "}");
        kept("POST", "/api/loose/undo", "{\"ids\":[" + paper + "]}");
        kept("POST", "/api/rounds/{id}/close", "", round.id);
        kept("POST", "/api/sets/{round}", "", round.id);
        kept("POST", "/api/rounds/{id}/reopen", "", round.id);
    }

    private TestParcel parcel(String title) {
        TestParcel parcel = new TestParcel(owner.desk);
        parcel.sheet.put("title", title);
        assertThat(owner.desk.put("/api/parcels/" + parcel.id + "/sharing", share(false)).status()).isEqualTo(200);
        return parcel;
    }

    private void parcels() {
        TestParcel parcel = parcel(MARK + " parcel");
        watched.add("/api/parcels/" + parcel.id);
        kept("PUT", "/api/parcels/{id}/sharing", share(false), parcel.id);
        parcel.person("Fay Kept");
        parcel.sheet.put("version", parcel.full().path("version").asInt());
        kept("PUT", "/api/parcels/{id}", parcel.sheet.toString(), parcel.id);
        JsonNode coming = kept("POST", "/api/parcels/{id}/files", "{\"files\":[{\"name\":\"plan.txt\",\"bytes\":4},{\"name\":\"more.txt\",\"bytes\":4}]}", parcel.id).json();
        kept("POST", "/api/parcels/{id}/files/{file}/bytes", "?at=0", "plan".getBytes(StandardCharsets.UTF_8), "application/octet-stream", parcel.id, coming.get(0).path("id"));
        parcel.looked();
        kept("DELETE", "/api/parcels/{id}/files/{file}", "", parcel.id, coming.get(1).path("id"));
        kept("POST", "/api/parcels/{id}/picked", "{\"files\":[" + newest("Cal Kept") + "]}", parcel.id);
        parcel.looked();
        kept("POST", "/api/parcels/{id}/hand-out", json("version", parcel.full().path("version").asInt()), parcel.id);
        long way = parcel.way("Fay Kept").path("id").asLong();
        kept("POST", "/api/parcels/{id}/people", "{\"people\":[{\"name\":\"Gil Kept\",\"email\":\"gil.kept@example.org\"}],\"byLetter\":false}", parcel.id);
        kept("POST", "/api/parcels/{id}/again", "{\"links\":[]}", parcel.id);
        kept("POST", "/api/parcels/{id}/stop", "", parcel.id);
        kept("POST", "/api/parcels/{id}/go-on", "", parcel.id);
        kept("POST", "/api/parcels/{id}/renew", "{\"days\":7}", parcel.id);
        kept("POST", "/api/parcels/{id}/links/{link}/address", "", parcel.id, way);
        kept("POST", "/api/parcels/{id}/links/{link}/withdraw", "", parcel.id, way);
        kept("POST", "/api/parcels/{id}/links/{link}/give-back", "", parcel.id, way);
        kept("POST", "/api/parcel-handouts", "{\"parcel\":" + parcel.id + ",\"links\":[" + way + "],\"passcode\":\"\"}");
        watched.remove("/api/parcels/" + parcel.id);
        kept("DELETE", "/api/parcels/{id}", "", parcel(MARK + " draft").id);
    }

    private void exchanges() {
        String sheet = "{\"title\":\"" + MARK + " place\",\"message\":\"\",\"item\":\"Maps\",\"days\":14,\"putIn\":true,\"see\":true,\"takeAway\":true,\"asksFirst\":false,\"byLetter\":false,\"person\":{\"name\":\"Hal Kept\",\"email\":\"hal.kept@example.org\"}}";
        long id = owner.desk.post("/api/exchanges", sheet).json().path("id").asLong();
        long its = of("/api/exchanges/" + id).path("exchange").path("roundId").asLong();
        privately(its);
        watched.add("/api/exchanges/" + id);
        kept("PUT", "/api/exchanges/{id}", json("version", of("/api/exchanges/" + id).path("version").asInt(), "putIn", true, "see", true, "takeAway", true, "asksFirst", false), id);
        kept("POST", "/api/exchanges/{id}/letter", "", id);
        long file = owner.desk.post("/api/parcels/" + id + "/files", "{\"files\":[{\"name\":\"form.txt\",\"bytes\":4}]}").json().get(0).path("id").asLong();
        owner.desk.send("POST", "/api/parcels/" + id + "/files/" + file + "/bytes?at=0", "form".getBytes(StandardCharsets.UTF_8), "Content-Type", "application/octet-stream");
        Waiting.until(() -> of("/api/exchanges/" + id), full -> full.path("files").get(0).path("state").asString().equals("READY"));
        String path = of("/api/exchanges/" + id).path("path").asString();
        TestRound.Sender hal = new TestRound.Sender(path.substring(path.lastIndexOf('/') + 1)).begin();
        assertThat(hal.send(1, "filled.txt", "filled".getBytes(StandardCharsets.UTF_8)).status()).isEqualTo(201);
        hal.finish();
        long received = of("/api/exchanges/" + id).path("received").get(0).path("id").asLong();
        kept("PUT", "/api/exchanges/{id}/answers", json("file", file, "received", received), id);
        owner.desk.send("DELETE", "/api/parcels/" + id + "/files/" + file, null);
        kept("POST", "/api/exchanges/{id}/files/{file}/put-back", "", id, file);
        kept("POST", "/api/exchanges/of-basket/{basket}", "", round.row("Cal Kept").path("id").asLong());
    }
}
