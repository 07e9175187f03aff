package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.List;
import oakbasket.core.team.Role;
import org.assertj.core.api.SoftAssertions;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** A parcel belongs to its maker and is shared like a round; what lies in it is seen by nobody who does not see where it came from. */
class ParcelSharingTest {

    private TestTeam owner;
    private TestTeam colleague;
    private TestTeam third;

    @BeforeEach
    void anOffice() {
        owner = TestTeam.of(Role.COORDINATOR);
        colleague = TestTeam.of(Role.COORDINATOR);
        third = TestTeam.of(Role.COORDINATOR);
    }

    private static String share(long owner, boolean office, List<Long> with) {
        return "{\"owner\":" + owner + ",\"wholeOffice\":" + office + ",\"with\":" + with + "}";
    }

    private Http.Answer shared(TestParcel parcel, Http by, boolean office, Long... with) {
        return by.put("/api/parcels/" + parcel.id + "/sharing", share(owner.id(), office, List.of(with)));
    }

    @Test
    void keptToSomeItIsAsIfItWereNotThereForTheOthers() {
        TestParcel parcel = new TestParcel(owner.desk).person("Kay Kestrel").file("kestrel plan.txt", "kestrel".getBytes(StandardCharsets.UTF_8));
        parcel.sheet.put("title", "Kestrel parcel");
        parcel.handOut();
        long way = parcel.way("Kay Kestrel").path("id").asLong();
        long contact = parcel.way("Kay Kestrel").path("contactId").asLong();
        assertThat(colleague.desk.get("/api/parcels/" + parcel.id).json().path("parcel").path("wholeOffice").asBoolean()).as("of the office at first").isTrue();
        assertThat(colleague.desk.get("/api/parcels?mine=true").text()).doesNotContain("Kestrel");
        assertThat(owner.desk.get("/api/parcels?mine=true").text()).contains("Kestrel parcel");
        assertThat(shared(parcel, colleague.desk, false).problem()).as("only its owner says so").isEqualTo("not-owner");
        assertThat(shared(parcel, owner.desk, false, third.id()).status()).isEqualTo(200);

        SoftAssertions all = new SoftAssertions();
        for (String path : List.of("/api/parcels", "/api/parcels?find=kestrel", "/api/parcels/" + parcel.id, "/api/parcels/" + parcel.id + "/sharing", "/api/parcels/" + parcel.id + "/letters", "/api/contacts/" + contact + "/parcels", "/api/search?find=Kestrel%20parcel",
                "/api/letters?find=kestrel", "/api/letters", "/api/contacts/" + contact + "/letters", "/api/parcel-handouts/" + way + "/qr.svg", "/api/today")) {
            Http.Answer seen = colleague.desk.get(path);
            all.assertThat(seen.status()).as(path).isLessThan(500);
            all.assertThat(seen.text()).as(path).doesNotContain("Kestrel parcel").doesNotContain("kestrel plan");
        }
        int version = parcel.full().path("version").asInt();
        String before = parcel.full().toString();
        for (String act : List.of("stop", "go-on", "renew", "again", "people", "hand-out", "picked", "links/" + way + "/address", "links/" + way + "/withdraw", "files")) {
            String body = "{\"days\":3,\"links\":[],\"version\":" + version + ",\"files\":[1],\"people\":[{\"name\":\"A\",\"email\":\"a@example.org\"}],\"byLetter\":false}";
            all.assertThat(colleague.desk.post("/api/parcels/" + parcel.id + "/" + act, body).status()).as(act).isIn(400, 404);
        }
        all.assertThat(colleague.desk.put("/api/parcels/" + parcel.id, parcel.sheet.toString()).status()).isEqualTo(404);
        all.assertThat(parcel.full().toString()).isEqualTo(before);
        all.assertThat(third.desk.get("/api/parcels/" + parcel.id).status()).as("whom it is shared with").isEqualTo(200);
        all.assertThat(third.desk.post("/api/parcels/" + parcel.id + "/stop", "").status()).isEqualTo(204);
        all.assertThat(TestTeam.of(Role.ADMINISTRATOR).desk.get("/api/parcels/" + parcel.id).status()).isEqualTo(200);
        all.assertThat(TestTeam.of(Role.READER).desk.get("/api/parcels/" + parcel.id).status()).isEqualTo(404);
        all.assertAll();
        assertThat(shared(parcel, owner.desk, true).status()).isEqualTo(200);
        assertThat(colleague.desk.get("/api/parcels/" + parcel.id).status()).isEqualTo(200);
    }

    @Test
    void whatComesFromARoundOfFewGoesIntoNothingWider() {
        TestRound round = new TestRound(owner.desk).onlyPeople("Ivy Few");
        round.item("Notes", false, 1, 3, 1).open();
        TestRound.Sender sender = round.personal("Ivy Few").begin();
        assertThat(sender.send(2, "few.txt", "few".getBytes(StandardCharsets.UTF_8)).status()).isEqualTo(201);
        sender.finish();
        long file = round.panel("Ivy Few").path("files").get(0).path("id").asLong();
        assertThat(owner.desk.put("/api/sharing/" + round.id, share(owner.id(), false, List.of(third.id()))).status()).isEqualTo(200);

        TestParcel fresh = new TestParcel(owner.desk);
        assertThat(picked(owner.desk, fresh, file).status()).isEqualTo(200);
        JsonNode sharing = owner.desk.get("/api/parcels/" + fresh.id + "/sharing").json();
        assertThat(sharing.path("wholeOffice").asBoolean()).as("an empty parcel is shared with no more than the round is").isFalse();
        assertThat(sharing.path("with").toString()).isEqualTo("[" + third.id() + "]");
        assertThat(shared(fresh, owner.desk, true).at("wholeOffice")).as("and not with more afterwards").isNotEmpty();
        assertThat(shared(fresh, owner.desk, false, colleague.id()).at("with")).isNotEmpty();
        assertThat(shared(fresh, owner.desk, false).status()).as("fewer").isEqualTo(200);

        TestParcel filled = new TestParcel(owner.desk).file("own.txt", new byte[] {65});
        assertThat(picked(owner.desk, filled, file).problem()).as("one that others see into already").isEqualTo("parcel-wider");
        assertThat(filled.full().path("files").size()).isEqualTo(1);
        TestParcel ofColleague = new TestParcel(colleague.desk);
        assertThat(picked(colleague.desk, ofColleague, file).status()).as("who does not see it").isEqualTo(404);
        assertThat(picked(third.desk, ofColleague, file).problem()).as("for somebody who does not see it").isEqualTo("parcel-wider");
    }

    private static Http.Answer picked(Http by, TestParcel into, long file) {
        return by.post("/api/parcels/" + into.id + "/picked", "{\"files\":[" + file + "]}");
    }

    @Test
    void aParcelIsHandedOver() {
        TestParcel parcel = new TestParcel(owner.desk).file("own.txt", new byte[] {65});
        assertThat(owner.desk.put("/api/parcels/" + parcel.id + "/sharing", share(TestTeam.of(Role.READER).id(), false, List.of())).at("owner")).isNotEmpty();
        assertThat(owner.desk.put("/api/parcels/" + parcel.id + "/sharing", "{\"owner\":null}").status()).isEqualTo(400);
        assertThat(owner.desk.put("/api/parcels/" + parcel.id + "/sharing", share(colleague.id(), false, List.of())).status()).isEqualTo(200);
        assertThat(owner.desk.get("/api/parcels/" + parcel.id).status()).as("given away, and not shared back").isEqualTo(404);
        JsonNode full = colleague.desk.get("/api/parcels/" + parcel.id).json();
        assertThat(full.path("parcel").path("by").asString()).isEqualTo(colleague.account.name());
        assertThat(full.path("story").toString()).contains("SHARED");
    }
}
