package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import oakbasket.core.team.Permission;
import oakbasket.core.team.Role;
import oakbasket.core.team.TeamTerms;
import oakbasket.server.problem.Problem;
import oakbasket.server.round.Rounds;
import oakbasket.server.sharing.Sharing;
import oakbasket.server.storage.Acting;
import oakbasket.server.storage.Transactions;
import org.assertj.core.api.SoftAssertions;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** Every operation of the API description and every role: the table of what each needs stands in {@code permissions.txt}, none is left out, and each is kept to. */
class RolesTest {

    private static final Pattern OPEN = Pattern.compile("/api/(basket|place|pick-up|uploads|session|first-account|joining|password-reset)(/.*)?|/calendar/.*|/brand/.*");
    private static final Path TABLE = Path.of("src/test/resources/permissions.txt");
    private static final Map<Role, TestTeam> TEAM = new EnumMap<>(Role.class);

    private static synchronized Http desk(Role role) {
        return TEAM.computeIfAbsent(role, TestTeam::of).desk;
    }

    private static List<String> operations() {
        List<String> operations = new ArrayList<>();
        JsonNode paths = Http.desk().get("/api/openapi.json").json().path("paths");
        paths.propertyNames().forEach(path -> paths.path(path).propertyNames().forEach(method -> {
            if (!OPEN.matcher(path).matches() || path.equals("/api/session/password")) {
                operations.add(method.toUpperCase(Locale.ROOT) + " " + path);
            }
        }));
        return operations;
    }

    private static Map<String, Permission> table() throws IOException {
        try (Stream<String> lines = Files.lines(TABLE, StandardCharsets.UTF_8)) {
            return lines.filter(line -> !line.startsWith("#") && !line.isBlank()).map(line -> line.split(" +"))
                    .collect(Collectors.toMap(parts -> parts[1] + " " + parts[2], parts -> Permission.valueOf(parts[0]), (a, b) -> a, TreeMap::new));
        }
    }

    @Test
    void noOperationIsLeftOut() throws IOException {
        assertThat(table().keySet()).containsExactlyInAnyOrderElementsOf(operations()).hasSizeGreaterThan(230);
    }

    @ParameterizedTest
    @EnumSource(Role.class)
    void eachRoleMayWhatTheTableSays(Role role) throws IOException {
        Http desk = desk(role);
        SoftAssertions all = new SoftAssertions();
        for (Map.Entry<String, Permission> operation : table().entrySet()) {
            String[] parts = operation.getKey().split(" ");
            if (operation.getKey().equals("GET /api/live")) {
                continue;
            }
            String path = parts[1].replaceAll("\\{[^}]+}", "987654321");
            Http.Answer answer = desk.send(parts[0], path, parts[0].equals("GET") ? null : "{}".getBytes(StandardCharsets.UTF_8), "Content-Type", "application/json");
            if (role.may(operation.getValue(), TeamTerms.OPEN)) {
                all.assertThat(answer.status()).as(role + " " + operation).isNotEqualTo(403);
            } else {
                all.assertThat(answer.status()).as(role + " " + operation).isEqualTo(403);
                all.assertThat(answer.status() == 403 ? answer.problem() : "").as(role + " " + operation).isEqualTo("role");
            }
        }
        all.assertAll();
    }

    /** The same below the web: a service that writes refuses whoever only reads, whichever way they came. */
    @Test
    void whoeverOnlyReadsWritesNothingThroughAService() {
        TestTeam reader = TestTeam.of(Role.READER);
        Acting.Who who = RunningApp.bean(Sharing.class).acting(reader.account);
        TestRound round = new TestRound().open();
        Acting.begin(who);
        try {
            assertThat(catching(() -> RunningApp.bean(Rounds.class).change(round.id, oakbasket.core.round.RoundState.Change.CLOSE)).code()).isEqualTo("role");
            assertThat(catching(() -> RunningApp.bean(Transactions.class).durably(() -> true)).code()).isEqualTo("role");
            assertThat(RunningApp.bean(Transactions.class).own(() -> true)).as("one's own").isTrue();
        } finally {
            Acting.end();
        }
        assertThat(round.board().path("head").path("state").asString()).isNotEqualTo("CLOSED");
    }

    /** With such an address a reader could send in somebody's name, or take files away as them. */
    @Test
    void aReaderGetsNoAddressByWhichOthersSendOrTake() throws IOException {
        TestRound round = new TestRound().onlyPeople("Ada Own").withOpenLink("").withLetters("{\"invite\":true}").open();
        TestRound.Sender sender = round.personal("Ada Own").begin();
        TestParcel parcel = new TestParcel().person("Una Own").file("a.txt", "a".getBytes(StandardCharsets.UTF_8)).handOut();
        List<String> secrets = List.of(sender.token, round.openLink().token, parcel.taker("Una Own").token());
        long basket = round.row("Ada Own").path("id").asLong();
        long contact = round.row("Ada Own").path("contactId").asLong();
        long link = round.desk.get("/api/links?round=" + round.id).json().path("links").get(0).path("id").asLong();
        long letter = round.desk.get("/api/baskets/" + basket + "/letters").json().path("letters").get(0).path("id").asLong();
        // What a coordinator wrote down, and would rather not have.
        String written = "See https://oak.example.org/b/fenn/" + sender.token + " and /p/" + parcel.taker("Una Own").token() + ".";
        JsonNode known = round.desk.get("/api/contacts/" + contact).json().path("contact");
        assertThat(round.desk.put("/api/contacts/" + contact, ((ObjectNode) known).deepCopy().put("notes", written).toString()).status()).isEqualTo(200);
        assertThat(round.act("EXTEND", "Ada Own", "\"date\":\"2026-07-10\",\"reason\":\"" + written + "\"").status()).isEqualTo(200);
        Http reader = TestTeam.of(Role.READER).desk;
        JsonNode paths = Http.desk().get("/api/openapi.json").json().path("paths");
        List<String> asked = new ArrayList<>(List.of("/api/search?find=Own", "/api/links?round=" + round.id, "/api/post?find=Own"));
        List<String> theirs = new ArrayList<>();
        Map<String, Permission> table = table();
        paths.propertyNames().forEach(path -> {
            if (paths.path(path).has("get") && path.startsWith("/api/") && !path.equals("/api/live")) {
                String id = path.startsWith("/api/baskets") ? "" + basket : path.startsWith("/api/contacts") ? "" + contact : path.startsWith("/api/parcels") ? "" + parcel.id
                        : path.matches("/api/(links|handouts).*") ? "" + link : path.startsWith("/api/letters") ? "" + letter : "" + round.id;
                asked.add(path.replaceAll("\\{[^}]+}", id));
                if (Role.READER.may(table.getOrDefault("GET " + path, Permission.ADMINISTER), TeamTerms.OPEN)) {
                    theirs.add(path.replaceAll("\\{[^}]+}", id));
                }
            }
        });
        SoftAssertions all = new SoftAssertions();
        int told = 0;
        for (String path : asked) {
            Http.Answer seen = reader.get(path);
            String answer = seen.text();
            if (theirs.contains(path)) {
                all.assertThat(seen.status()).as("theirs to see, and nothing is written by looking: " + path).isNotEqualTo(403);
            }
            String owners = Http.desk().get(path).text();
            all.assertThat(secrets.stream().filter(answer::contains)).as(path).isEmpty();
            told += secrets.stream().anyMatch(owners::contains) ? 1 : 0;
        }
        all.assertAll();
        assertThat(told).as("where a coordinator gets them").isGreaterThan(4);
    }

    private static Problem catching(Runnable work) {
        try {
            work.run();
        } catch (Problem refused) {
            return refused;
        }
        throw new AssertionError("Nothing was refused");
    }
}
