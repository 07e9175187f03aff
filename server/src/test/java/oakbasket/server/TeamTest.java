package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import jakarta.mail.internet.MimeMessage;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import oakbasket.core.team.Role;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Inviting, joining, roles, leaving with everything handed over, forgotten passwords, and what the office settles. */
class TeamTest {

    private static final String NEW_PASSWORD = "reeds along the bank";
    private final Http desk = Http.desk();
    private final Instant before = RunningApp.CLOCK.instant();

    @AfterEach
    void asItWas() {
        RunningApp.CLOCK.set(before);
    }

    private static String secret(MimeMessage mail) {
        Matcher link = Pattern.compile("#([\\w-]{20,})").matcher(Outbox.text(mail));
        assertThat(link.find()).isTrue();
        return link.group(1);
    }

    private JsonNode member(String email) {
        for (JsonNode one : desk.get("/api/team").json().path("members")) {
            if (one.path("member").path("email").asString().equals(email)) {
                return one;
            }
        }
        throw new AssertionError(email);
    }

    private Http.Answer invite(String name, String email, String role) {
        return desk.post("/api/team/invitations", "{\"name\":\"" + name + "\",\"email\":\"" + email + "\",\"role\":\"" + role + "\"}");
    }

    @Test
    void whoIsInvitedMakesOneAccountWithTheLinkInTheLetter() {
        assertThat(invite("Iris Wader", "iris.wader@example.org", "COORDINATOR").status()).isEqualTo(201);
        assertThat(invite("Iris Wader", "Iris.Wader@example.org", "READER").at("email")).contains("invited already");
        assertThat(invite("", "nobody", "READER").at("email")).isNotEmpty();
        String token = secret(Outbox.to("iris.wader@example.org").get(0));
        Http stranger = new Http();
        stranger.get("/api/session");
        assertThat(stranger.post("/api/joining/look", "{\"token\":\"" + token + "\"}").json().path("role").asString()).isEqualTo("COORDINATOR");
        assertThat(stranger.post("/api/joining/look", "{\"token\":\"" + token + "x\"}").problem()).isEqualTo("no-invitation-held");
        assertThat(stranger.post("/api/joining", "{\"token\":\"" + token + "\",\"name\":\"Iris W.\",\"password\":\"short\"}").at("password")).isNotEmpty();
        String body = "{\"token\":\"" + token + "\",\"name\":\"Iris W.\",\"password\":\"" + NEW_PASSWORD + "\"}";
        assertThat(stranger.post("/api/joining", body).status()).isEqualTo(201);
        assertThat(stranger.post("/api/joining", body).problem()).as("once").isEqualTo("no-invitation-held");
        JsonNode session = Http.signedIn("iris.wader@example.org", NEW_PASSWORD).get("/api/session").json();
        assertThat(session.path("role").asString()).isEqualTo("COORDINATOR");
        assertThat(session.path("name").asString()).isEqualTo("Iris W.");
        assertThat(session.path("may").toString()).contains("CHANGE").doesNotContain("ADMINISTER");
        assertThat(invite("Iris Wader", "iris.wader@example.org", "READER").at("email")).contains("account with this address");
    }

    @Test
    void anInvitationThatIsOldWithdrawnOrSentAgainDoesNotLetIn() {
        invite("Kit Sedge", "kit.sedge@example.org", "READER");
        String first = secret(Outbox.to("kit.sedge@example.org").get(0));
        long id = desk.get("/api/team").json().path("invitations").valueStream().filter(one -> one.path("name").asString().equals("Kit Sedge")).findFirst().orElseThrow().path("id").asLong();
        Http.Answer again = desk.post("/api/team/invitations/" + id + "/again", "");
        String second = again.json().path("link").asString().replaceAll(".*#", "");
        Http stranger = new Http();
        stranger.get("/api/session");
        assertThat(stranger.post("/api/joining/look", "{\"token\":\"" + first + "\"}").status()).isEqualTo(404);
        assertThat(stranger.post("/api/joining/look", "{\"token\":\"" + second + "\"}").status()).isEqualTo(200);
        RunningApp.CLOCK.set(before.plus(Duration.ofDays(8)));
        assertThat(stranger.post("/api/joining/look", "{\"token\":\"" + second + "\"}").status()).isEqualTo(404);
        RunningApp.CLOCK.set(before);
        assertThat(desk.send("DELETE", "/api/team/invitations/" + id, null).status()).isEqualTo(204);
        assertThat(stranger.post("/api/joining/look", "{\"token\":\"" + second + "\"}").status()).isEqualTo(404);
    }

    @Test
    void whoLeavesHandsOverEverythingAndIsOutAtOnce() {
        TestTeam leaving = TestTeam.of(Role.COORDINATOR);
        TestTeam heir = TestTeam.of(Role.COORDINATOR);
        TestTeam reads = TestTeam.of(Role.READER);
        TestRound round = new TestRound(leaving.desk).open();
        String path = "/api/team/" + leaving.id() + "/leave";
        int version = member(leaving.account.email()).path("member").path("version").asInt();
        assertThat(desk.post("/api/team/" + leaving.id() + "/role", "").status()).isGreaterThanOrEqualTo(400);
        assertThat(desk.put("/api/team/" + leaving.id() + "/role", "{\"version\":" + version + ",\"role\":\"READER\"}").problem()).isEqualTo("reader-owns");
        assertThat(desk.post(path, "{\"version\":" + version + "}").at("to")).isNotEmpty();
        assertThat(desk.post(path, "{\"version\":" + version + ",\"to\":" + reads.id() + "}").at("to")).contains("reader");
        assertThat(desk.post(path, "{\"version\":" + version + ",\"to\":" + leaving.id() + "}").at("to")).isNotEmpty();
        assertThat(leaving.desk.get("/api/rounds").status()).as("nothing happened yet").isEqualTo(200);
        assertThat(desk.post(path, "{\"version\":" + (version + 5) + ",\"to\":" + heir.id() + "}").problem()).isEqualTo("changed-elsewhere");
        assertThat(desk.get("/api/sharing/" + round.id).json().path("owner").asLong()).as("all or nothing").isEqualTo(leaving.id());
        assertThat(desk.post(path, "{\"version\":" + version + ",\"to\":" + heir.id() + "}").status()).isEqualTo(200);
        assertThat(leaving.desk.get("/api/rounds").status()).isEqualTo(401);
        Http again = new Http();
        again.get("/api/session");
        assertThat(again.post("/api/session", "{\"email\":\"" + leaving.account.email() + "\",\"password\":\"" + RunningApp.PASSWORD + "\"}").problem()).isEqualTo("sign-in-wrong");
        assertThat(desk.get("/api/sharing/" + round.id).json().path("owner").asLong()).isEqualTo(heir.id());
        assertThat(heir.desk.get("/api/rounds/" + round.id + "/board").status()).isEqualTo(200);
        int heirs = member(heir.account.email()).path("member").path("version").asInt();
        Http.Answer toNobody = desk.post("/api/team/" + heir.id() + "/leave", "{\"version\":" + heirs + ",\"to\":" + leaving.id() + "}");
        assertThat(toNobody.at("to")).as("nobody who left: %s", toNobody.text()).isNotEmpty();
        assertThat(desk.post("/api/team/" + leaving.id() + "/back", "{\"version\":" + (version + 1) + "}").status()).isEqualTo(200);
        assertThat(Http.signedIn(leaving.account.email(), RunningApp.PASSWORD).get("/api/rounds").status()).isEqualTo(200);
    }

    /** In an application of their own: two administrators who remove each other at the same moment. */
    @Test
    void oneAdministratorIsAlwaysLeft() {
        List<TestTeam> two = List.of(TestTeam.of(Role.ADMINISTRATOR), TestTeam.of(Role.ADMINISTRATOR));
        try {
            for (JsonNode one : desk.get("/api/team").json().path("members")) {
                long id = one.path("member").path("id").asLong();
                boolean kept = id == two.get(0).id() || id == two.get(1).id() || !one.path("member").path("role").asString().equals("ADMINISTRATOR") || one.path("member").path("endedAt").isString();
                if (!kept) {
                    assertThat(role(two.get(0), id, "COORDINATOR").status()).isEqualTo(200);
                }
            }
            List<CompletableFuture<Http.Answer>> both = two.stream().map(one -> CompletableFuture.supplyAsync(() -> role(one, two.get(1 - two.indexOf(one)).id(), "READER"))).toList();
            List<Integer> done = both.stream().map(one -> one.join().status()).sorted().toList();
            assertThat(done.get(0)).isEqualTo(200);
            assertThat(done.get(1)).isIn(403, 409);
        } finally {
            TestTeam left = two.stream().filter(one -> one.desk.get("/api/team").status() == 200).findFirst().orElseThrow();
            assertThat(role(left, left.id(), "COORDINATOR").problem()).as("not even oneself").isEqualTo("last-administrator");
            for (JsonNode one : left.desk.get("/api/team").json().path("members")) {
                if (one.path("member").path("email").asString().equals(RunningApp.EMAIL)) {
                    assertThat(role(left, one.path("member").path("id").asLong(), "ADMINISTRATOR").status()).isEqualTo(200);
                }
            }
        }
    }

    private static Http.Answer role(TestTeam by, long id, String role) {
        int version = by.desk.get("/api/team").json().path("members").valueStream().filter(one -> one.path("member").path("id").asLong() == id).findFirst().map(one -> one.path("member").path("version").asInt()).orElse(0);
        return by.desk.put("/api/team/" + id + "/role", "{\"version\":" + version + ",\"role\":\"" + role + "\"}");
    }

    @Test
    void aForgottenPasswordIsSetOnceByALinkAndAskingSaysNothing() {
        TestTeam one = TestTeam.of(Role.COORDINATOR);
        Http stranger = new Http();
        stranger.get("/api/session");
        assertThat(stranger.post("/api/password-reset", "{\"email\":\"" + one.account.email() + "\"}").status()).isEqualTo(202);
        assertThat(stranger.post("/api/password-reset", "{\"email\":\"nobody.here@example.org\"}").status()).isEqualTo(202);
        Waiting.until(() -> Outbox.to(one.account.email()).size(), size -> size > 0);
        String token = secret(Outbox.to(one.account.email()).get(0));
        assertThat(one.desk.get("/api/rounds").status()).as("asking changes nothing").isEqualTo(200);
        assertThat(stranger.put("/api/password-reset", "{\"token\":\"" + token + "\",\"password\":\"short\"}").at("password")).isNotEmpty();
        assertThat(stranger.put("/api/password-reset", "{\"token\":\"" + token + "\",\"password\":\"" + NEW_PASSWORD + "\"}").status()).isEqualTo(204);
        assertThat(stranger.put("/api/password-reset", "{\"token\":\"" + token + "\",\"password\":\"" + NEW_PASSWORD + " two\"}").problem()).as("once").isEqualTo("no-reset");
        assertThat(one.desk.get("/api/rounds").status()).as("all sessions end").isEqualTo(401);
        assertThat(Http.signedIn(one.account.email(), NEW_PASSWORD).get("/api/rounds").status()).isEqualTo(200);
        for (int i = 0; i < 8; i++) {
            stranger.post("/api/password-reset", "{\"email\":\"" + one.account.email() + "\"}");
        }
        assertThat(stranger.post("/api/password-reset", "{\"email\":\"" + one.account.email() + "\"}").status()).as("one caller").isEqualTo(429);
        assertThat(Outbox.to(one.account.email()).stream().filter(mail -> Outbox.subject(mail).equals("A new password")).count()).as("nobody's mailbox is filled").isLessThanOrEqualTo(3);
    }

    @Test
    void theOfficeSettlesOpenLinksHandingOutAndLiveLinks() {
        TestTeam one = TestTeam.of(Role.COORDINATOR);
        int version = desk.get("/api/team-settings").json().path("version").asInt();
        try {
            assertThat(desk.put("/api/team-settings", "{\"openLinks\":true,\"handOut\":true,\"mostLiveLinks\":0,\"version\":" + version + "}").at("mostLiveLinks")).isNotEmpty();
            assertThat(desk.put("/api/team-settings", "{\"openLinks\":false,\"handOut\":false,\"mostLiveLinks\":3,\"version\":" + version + "}").status()).isEqualTo(200);
            assertThat(desk.put("/api/team-settings", "{\"openLinks\":true,\"handOut\":true,\"version\":" + version + "}").problem()).isEqualTo("changed-elsewhere");
            assertThat(one.desk.post("/api/parcels", "{}").problem()).isEqualTo("role");
            TestRound open = new TestRound(one.desk).withOpenLink("");
            assertThat(open.tryOpen().problem()).isEqualTo("role-open-link");
            assertThat(new TestRound(one.desk).tryOpen().status()).as("two links").isEqualTo(204);
            TestRound second = new TestRound(one.desk);
            assertThat(second.tryOpen().problem()).as("four").isEqualTo("too-many-live-links");
            assertThat(one.desk.get("/api/rounds/" + second.id + "/board").status()).as("nothing half-opened").isEqualTo(404);
            TestRound third = new TestRound(one.desk).onlyPeople("Ned Alone");
            assertThat(third.tryOpen().status()).isEqualTo(204);
            assertThat(one.desk.post("/api/rounds/" + third.id + "/people", "{\"people\":[{\"name\":\"One More\",\"email\":\"one.more@example.org\"}],\"groups\":[]}").problem()).isEqualTo("too-many-live-links");
            long its = one.desk.get("/api/links?round=" + third.id).json().path("links").get(0).path("id").asLong();
            assertThat(one.desk.post("/api/links/acts", "{\"kind\":\"WITHDRAW\",\"ids\":[" + its + "]}").status()).isEqualTo(200);
            assertThat(one.desk.post("/api/rounds/" + third.id + "/people", "{\"people\":[{\"name\":\"One More\",\"email\":\"one.more@example.org\"}],\"groups\":[]}").status()).isEqualTo(200);
            assertThat(one.desk.post("/api/links/acts", "{\"kind\":\"GIVE_BACK\",\"ids\":[" + its + "]}").problem()).isEqualTo("too-many-live-links");
        } finally {
            int now = desk.get("/api/team-settings").json().path("version").asInt();
            assertThat(desk.put("/api/team-settings", "{\"openLinks\":true,\"handOut\":true,\"mostLiveLinks\":null,\"version\":" + now + "}").status()).isEqualTo(200);
        }
    }

    @Test
    void sessionsAreListedAndEnded() {
        TestTeam one = TestTeam.of(Role.READER);
        Http other = Http.signedIn(one.account.email(), RunningApp.PASSWORD);
        JsonNode sessions = one.desk.get("/api/sessions").json();
        assertThat(sessions.size()).isEqualTo(2);
        String handle = sessions.valueStream().filter(session -> !session.path("own").asBoolean()).findFirst().orElseThrow().path("handle").asString();
        assertThat(Http.desk().send("DELETE", "/api/sessions/" + handle, null).status()).as("somebody else's").isEqualTo(404);
        assertThat(one.desk.send("DELETE", "/api/sessions/" + handle, null).status()).isEqualTo(204);
        assertThat(other.get("/api/rounds").status()).isEqualTo(401);
        assertThat(one.desk.get("/api/rounds").status()).isEqualTo(200);
    }

    /** Whoever changes what they sign in with is told, so that they notice when it was somebody else at their desk. */
    @Test
    void aPasswordThatItsOwnerChangesIsToldByLetter() {
        TestTeam one = TestTeam.of(Role.READER);
        assertThat(one.desk.post("/api/session/password", "{\"present\":\"wrong one\",\"password\":\"another long password\"}").status()).isEqualTo(422);
        assertThat(one.desk.post("/api/session/password", "{\"present\":\"" + RunningApp.PASSWORD + "\",\"password\":\"another long password\"}").status()).isEqualTo(204);
        Waiting.until(() -> Outbox.to(one.account.email()).size(), size -> size > 0);
        assertThat(Outbox.to(one.account.email())).singleElement().satisfies(mail -> assertThat(Outbox.text(mail)).contains("You changed your password").doesNotContain("another long password"));
    }
}
