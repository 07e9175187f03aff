package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import oakbasket.core.team.Role;
import oakbasket.core.team.Share;
import org.assertj.core.api.SoftAssertions;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** A round that is not shared is as if it were not there, for whoever does not own it: in every list, search and count, and for every id. */
class SharingTest {

    private static final String MARK = "Zebrafinch";
    private static TestRound hidden;
    private static TestTeam colleague;
    private static TestTeam reader;
    private static long basket;
    private static long file;
    private static long link;
    private static long letter;
    private static long contact;
    private static String before;

    @BeforeAll
    static void aRoundIsKeptToItsOwner() {
        hidden = new TestRound().onlyPeople("Ada Kept");
        hidden.sheet.put("title", MARK + " round");
        hidden.item(MARK + " notes", false, 1, 9, 1);
        hidden.withLetters("{\"invite\":true}").open();
        TestRound.Sender sender = hidden.personal("Ada Kept").begin();
        assertThat(sender.send(2, MARK + ".txt", "a secret".getBytes(StandardCharsets.UTF_8)).status()).isEqualTo(201);
        sender.finish();
        basket = hidden.row("Ada Kept").path("id").asLong();
        file = hidden.panel("Ada Kept").path("files").get(0).path("id").asLong();
        link = hidden.desk.get("/api/links?round=" + hidden.id).json().path("links").get(0).path("id").asLong();
        letter = hidden.desk.get("/api/baskets/" + basket + "/letters").json().path("letters").path(0).path("id").asLong();
        contact = hidden.row("Ada Kept").path("contactId").asLong();
        colleague = TestTeam.of(Role.COORDINATOR);
        reader = TestTeam.of(Role.READER);
        Http.Answer shared = hidden.desk.put("/api/sharing/" + hidden.id, share(owner(), false, List.of()));
        assertThat(shared.status()).as(shared.text()).isEqualTo(200);
        before = standing();
    }

    private static String standing() {
        String all = hidden.board().toString() + hidden.desk.get("/api/links?round=" + hidden.id).text() + hidden.panel("Ada Kept") + hidden.desk.get("/api/rules/" + hidden.id).text()
                + hidden.desk.get("/api/sharing/" + hidden.id).json().path("wholeOffice") + hidden.desk.get("/api/frames/" + hidden.id).text();
        return all.replaceAll("\"now\":\"[^\"]*\"", "");
    }

    private static long owner() {
        return hidden.desk.get("/api/session").json().path("account").asLong();
    }

    private static String share(long owner, boolean office, List<Long> with) {
        return "{\"owner\":" + owner + ",\"wholeOffice\":" + office + ",\"with\":" + with + "}";
    }

    private static String concrete(String path) {
        String of = path.startsWith("/api/baskets/") ? "" + basket : path.matches("/api/(files|folders/files|removals|glances)/.*") ? "" + file : path.matches("/api/(links|handouts)/.*") ? "" + link
                : path.startsWith("/api/letters/") ? "" + letter : path.startsWith("/api/contacts/") ? "" + contact : "" + hidden.id;
        return path.replaceAll("\\{[^}]+}", of);
    }

    /** Asks everything there is to ask, by the API description, with the ids of what is hidden. */
    @Test
    void nothingOfItIsSeenWhateverIsAsked() {
        assertThat(List.of(basket, file, link, letter, contact)).doesNotContain(0L);
        JsonNode paths = Http.desk().get("/api/openapi.json").json().path("paths");
        List<String> asked = new ArrayList<>();
        paths.propertyNames().forEach(path -> {
            if (paths.path(path).has("get") && path.startsWith("/api/") && !path.equals("/api/live") && !path.equals("/api/post-office")) {
                asked.add(concrete(path));
            }
        });
        asked.addAll(List.of("/api/search?find=" + MARK, "/api/links?find=" + MARK, "/api/folders?find=" + MARK, "/api/folders", "/api/folders?path=" + MARK + "%20round", "/api/journal?find=" + MARK, "/api/post?find=" + MARK, "/api/files.zip?files=" + file,
                "/api/links?round=" + hidden.id, "/api/journal?round=" + hidden.id, "/api/outlook?round=" + hidden.id));
        SoftAssertions all = new SoftAssertions();
        int seenByOwner = 0;
        for (String path : asked) {
            for (TestTeam one : List.of(colleague, reader)) {
                Http.Answer answer = one.desk.get(path);
                all.assertThat(answer.status()).as(path).isLessThan(500);
                all.assertThat(answer.text()).as(one.account.role() + " " + path).doesNotContain(MARK).doesNotContain("a secret");
            }
            seenByOwner += hidden.desk.get(path).text().contains(MARK) ? 1 : 0;
        }
        all.assertAll();
        assertThat(seenByOwner).as("what the owner sees it in").isGreaterThan(20);
    }

    /** Tries to change everything there is to change, with the ids of what is hidden. */
    @Test
    void nothingOfItIsChangedWhateverIsTried() {
        JsonNode paths = Http.desk().get("/api/openapi.json").json().path("paths");
        SoftAssertions all = new SoftAssertions();
        int version = hidden.row("Ada Kept").path("version").asInt();
        Map<String, String> bodies = Map.of("POST /api/rounds/{id}/acts", "{\"kind\":\"WAIVE\",\"on\":true,\"reason\":\"no\",\"baskets\":[{\"id\":" + basket + ",\"version\":" + version + "}]}", "POST /api/files/{id}/review", "{\"state\":\"ACCEPTED\",\"reason\":\"\",\"before\":\"UNREVIEWED\"}",
                "POST /api/links/acts", "{\"kind\":\"WITHDRAW\",\"ids\":[" + link + "]}", "POST /api/rounds/{id}/people", "{\"people\":[{\"name\":\"New One\",\"email\":\"new.one@example.org\"}],\"groups\":[]}", "POST /api/folders/files", "{\"files\":[" + file + "],\"root\":1,\"path\":\"\"}",
                "POST /api/handouts", "{\"links\":[" + link + "]}", "PUT /api/sharing/{round}", share(colleague.id(), true, List.of()), "PUT /api/links/{id}/terms", "{\"version\":1,\"ends\":\"GATHERING\"}");
        paths.propertyNames().forEach(path -> paths.path(path).propertyNames().forEach(method -> {
            if (!method.equals("get") && path.matches("/api/(rounds/\\{id}|baskets|files|folders/files|removals|links|letters|sharing|rules|frames|retention|sets|handouts|tray/choices).*")) {
                String operation = method.toUpperCase(Locale.ROOT) + " " + path;
                Http.Answer answer = colleague.desk.send(method.toUpperCase(Locale.ROOT), concrete(path), bodies.getOrDefault(operation, "{}").getBytes(StandardCharsets.UTF_8), "Content-Type", "application/json");
                all.assertThat(answer.status()).as(operation + " " + answer.text()).isLessThan(500);
            }
        }));
        bodies.keySet().forEach(operation -> {
            String[] parts = operation.split(" ");
            Http.Answer answer = colleague.desk.send(parts[0], concrete(parts[1]), bodies.get(operation).getBytes(StandardCharsets.UTF_8), "Content-Type", "application/json");
            all.assertThat(answer.text()).as(operation).doesNotContain(MARK);
        });
        all.assertThat(standing()).isEqualTo(before);
        all.assertAll();
    }

    @Test
    void sharedWithOneItIsTheirsToWorkOnAndNobodyElses() {
        TestRound round = new TestRound().open();
        TestTeam with = TestTeam.of(Role.COORDINATOR);
        TestTeam without = TestTeam.of(Role.COORDINATOR);
        assertThat(without.desk.get("/api/rounds/" + round.id + "/board").status()).as("the whole office").isEqualTo(200);
        assertThat(round.desk.put("/api/sharing/" + round.id, share(owner(), false, List.of(with.id()))).status()).isEqualTo(200);
        assertThat(without.desk.get("/api/rounds/" + round.id + "/board").status()).isEqualTo(404);
        assertThat(with.desk.get("/api/rounds/" + round.id + "/board").json().path("rows").size()).isEqualTo(2);
        assertThat(with.desk.post("/api/rounds/" + round.id + "/close", "").status()).isLessThan(300);
        assertThat(with.desk.put("/api/sharing/" + round.id, share(with.id(), true, List.of())).problem()).as("who does not own it").isEqualTo("not-owner");
        TestTeam administrator = TestTeam.of(Role.ADMINISTRATOR);
        assertThat(administrator.desk.get("/api/rounds/" + round.id + "/board").status()).isEqualTo(200);
        assertThat(administrator.desk.put("/api/sharing/" + round.id, share(with.id(), false, List.of())).json().path("owner").asLong()).isEqualTo(with.id());
        assertThat(with.desk.put("/api/sharing/" + round.id, share(reader.id(), false, List.of())).at("owner")).isNotEmpty();
        assertThat(with.desk.put("/api/sharing/" + round.id, share(with.id(), false, List.of(987654L))).at("with")).isNotEmpty();
        assertThat(with.desk.put("/api/sharing/" + round.id, share(with.id(), true, List.of())).status()).isEqualTo(200);
        assertThat(without.desk.get("/api/rounds/" + round.id + "/board").status()).isEqualTo(200);
    }

    /** What the database leaves out is what the rule says, whatever the shares. */
    @Test
    void whoSeesWhatIsWhatTheRuleSays() {
        long seed = System.nanoTime();
        Random random = new Random(seed);
        List<TestTeam> team = List.of(TestTeam.of(Role.COORDINATOR), TestTeam.of(Role.COORDINATOR), TestTeam.of(Role.READER), TestTeam.of(Role.ADMINISTRATOR));
        Map<Long, Share> shares = new LinkedHashMap<>();
        for (int n = 0; n < 12; n++) {
            TestRound round = new TestRound().onlyPeople("Of Many " + n).open();
            boolean office = random.nextInt(4) == 0;
            List<Long> with = team.stream().map(TestTeam::id).filter(one -> random.nextBoolean()).toList();
            long owner = random.nextBoolean() ? owner() : team.get(random.nextInt(2)).id();
            assertThat(round.desk.put("/api/sharing/" + round.id, share(owner, office, with)).status()).isEqualTo(200);
            shares.put(round.id, new Share(owner, office, office ? Set.of() : new HashSet<>(with)));
        }
        for (TestTeam one : team) {
            Set<Long> seen = new HashSet<>();
            one.desk.get("/api/rounds").json().forEach(round -> seen.add(round.path("id").asLong()));
            Set<Long> open = shares.keySet().stream().filter(round -> one.desk.get("/api/rounds/" + round + "/board").status() == 200).collect(Collectors.toSet());
            Set<Long> expected = shares.entrySet().stream().filter(share -> share.getValue().sees(one.id(), one.account.role())).map(Map.Entry::getKey).collect(Collectors.toSet());
            seen.retainAll(shares.keySet());
            assertThat(seen).as("seed %d, listed for %s", seed, one.account.role()).isEqualTo(expected);
            assertThat(open).as("seed %d, opened by %s", seed, one.account.role()).isEqualTo(expected);
        }
    }

    /** By the other ways in, which know no session: the mounted share, the calendar, the letter that tells what came. */
    @Test
    void theShareTheCalendarAndTheDigestKeepToIt() {
        assertThat(shared(hidden.desk, RunningApp.EMAIL)).anyMatch(text -> text.contains(MARK));
        assertThat(shared(colleague.desk, colleague.account.email())).isNotEmpty().noneMatch(text -> text.contains(MARK));
        for (TestTeam one : List.of(colleague, reader)) {
            String url = one.desk.post("/api/feed", "").json().path("url").asString();
            Http.Answer calendar = new Http().get(url.substring(url.indexOf("/calendar/")));
            assertThat(calendar.status()).isEqualTo(200);
            assertThat(calendar.text()).doesNotContain(MARK);
        }
        String url = hidden.desk.post("/api/feed", "").json().path("url").asString();
        assertThat(new Http().get(url.substring(url.indexOf("/calendar/"))).text()).contains(MARK);
    }

    /** What the folders of the share hold, three levels deep. */
    private static List<String> shared(Http desk, String email) {
        String password = desk.post("/api/app-passwords", "{\"name\":\"share\"}").json().path("password").asString();
        String basic = "Basic " + java.util.Base64.getEncoder().encodeToString((email + ":" + password).getBytes(StandardCharsets.UTF_8));
        List<String> texts = new ArrayList<>();
        Http program = new Http();
        List<String> level = List.of("/dav/");
        for (int depth = 0; depth < 3; depth++) {
            List<String> next = new ArrayList<>();
            for (String folder : level) {
                Http.Answer answer = program.send("PROPFIND", folder, new byte[0], "Authorization", basic, "Depth", "1");
                assertThat(answer.status()).as(folder + answer.text()).isEqualTo(207);
                texts.add(answer.text());
                java.util.regex.Matcher href = java.util.regex.Pattern.compile("href>([^<]*/)<").matcher(answer.text());
                while (href.find()) {
                    if (!href.group(1).equals(folder)) {
                        next.add(href.group(1));
                    }
                }
            }
            level = next;
        }
        return texts;
    }

    /** Contacts are of the whole office: whoever merges two moves what they do not see too, and nobody who is in a hidden round is discarded. */
    @Test
    void contactsAreMergedWithWhatIsHiddenOfThem() {
        TestRound kept = new TestRound().onlyPeople("Twin Hidden").open();
        JsonNode row = kept.row("Twin Hidden");
        TestTeam other = TestTeam.of(Role.COORDINATOR);
        TestRound theirs = new TestRound(other.desk).onlyPeople("Twin Seen").open();
        assertThat(kept.desk.put("/api/sharing/" + kept.id, share(owner(), false, List.of())).status()).isEqualTo(200);
        assertThat(other.desk.post("/api/contacts/" + row.path("contactId") + "/discard", "").status()).as("in a round").isGreaterThanOrEqualTo(400);
        Http.Answer merged = other.desk.post("/api/contacts/merge", "{\"keep\":" + theirs.row("Twin Seen").path("contactId") + ",\"gone\":" + row.path("contactId") + "}");
        assertThat(merged.status()).as(merged.text()).isEqualTo(200);
        assertThat(merged.text()).doesNotContain(kept.title());
        assertThat(kept.board().path("rows").get(0).path("contactId").asLong()).isEqualTo(theirs.row("Twin Seen").path("contactId").asLong());
        assertThat(other.desk.get("/api/contacts/" + theirs.row("Twin Seen").path("contactId")).text()).doesNotContain(kept.title());
    }

    /** What goes on by itself can be asked for too; it goes on for the office then, not for whoever asked, who does not see everything. */
    @Test
    void whatIsAskedForAndGoesOnByItselfSeesEverything() {
        assertThat(colleague.desk.post("/api/findings/look", "").status()).isEqualTo(200);
        assertThat(hidden.desk.get("/api/findings").text()).as("no file of a hidden round is taken for one that nobody knows").doesNotContain(MARK);
        TestRound round = new TestRound().onlyPeople("Ned Calendar");
        long calendar = hidden.desk.post("/api/calendars", "{\"name\":\"Used where it is hidden\",\"weekend\":[\"SUNDAY\"],\"country\":\"\",\"region\":\"\"}").json().path("id").asLong();
        round.sheet.put("calendarId", calendar);
        round.open();
        assertThat(hidden.desk.put("/api/sharing/" + round.id, share(owner(), false, List.of())).status()).isEqualTo(200);
        assertThat(colleague.desk.send("DELETE", "/api/calendars/" + calendar, null).problem()).isEqualTo("calendar-used");
    }
}
