package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** The open link and its passcode, changed while a round gathers; and what is handed over of a round: all links, each file, archives with a name. */
class WayInTest {

    private final TestRound round = new TestRound().open();

    private Http.Answer change(boolean openLink, String passcode, boolean dropPasscode) {
        JsonNode changing = round.desk.get("/api/rounds/" + round.id + "/change").json();
        ObjectNode sheet = (ObjectNode) changing.path("sheet");
        sheet.put("openLink", openLink).put("passcode", passcode);
        return round.desk.post("/api/rounds/" + round.id + "/change",
                "{\"version\":" + changing.path("version") + ",\"sheet\":" + sheet + ",\"dropPasscode\":" + dropPasscode + "}");
    }

    private String address() {
        return round.desk.get("/api/rounds/" + round.id + "/link").json().path("url").asString();
    }

    private String page(String address) {
        Http.Answer page = new Http().get("/api/basket", "Oak-Link", address.substring(address.lastIndexOf('/') + 1));
        return page.status() == 200 ? "open" : page.problem();
    }

    @Test
    void anOpenLinkIsMadeGuardedOpenedAndStoppedWhileARoundGathers() {
        assertThat(round.desk.get("/api/rounds/" + round.id + "/link").problem()).isEqualTo("no-link");
        assertThat(change(true, "", false).status()).isEqualTo(204);
        String address = address();
        assertThat(page(address)).isEqualTo("open");
        assertThat(change(true, "kingfisher", false).status()).isEqualTo(204);
        assertThat(page(address)).isEqualTo("link-passcode-needed");
        assertThat(round.desk.get("/api/rounds/" + round.id + "/change").json().path("passcodeSet").asBoolean()).isTrue();
        assertThat(change(true, "", false).status()).isEqualTo(204);
        assertThat(page(address)).as("an empty one leaves it").isEqualTo("link-passcode-needed");
        assertThat(change(true, "short", false).at("passcode")).isNotEmpty();
        assertThat(change(true, "", true).status()).isEqualTo(204);
        assertThat(page(address)).isEqualTo("open");
        assertThat(change(false, "", false).status()).isEqualTo(204);
        assertThat(page(address)).isEqualTo("link-unknown");
        assertThat(change(true, "", false).status()).isEqualTo(204);
        assertThat(address()).as("the same address again").isEqualTo(address);
        assertThat(page(address)).isEqualTo("open");
    }

    @Test
    void everybodysLinkIsListedAndStandsInTheTable() {
        JsonNode links = round.desk.get("/api/rounds/" + round.id + "/links").json();
        assertThat(links).hasSize(2);
        assertThat(page(links.get(0).path("url").asString())).isEqualTo("open");
        assertThat(round.desk.get("/api/rounds/" + round.id + "/table.csv").text()).contains(links.get(0).path("url").asString(), links.get(1).path("url").asString());
        round.act("REMOVE", "Ada Brook", "\"on\":true");
        assertThat(round.desk.get("/api/rounds/" + round.id + "/links").json()).hasSize(1);
    }

    /** A fact of the trade (common practice, no source): what was received is handed over with its hash and its receipt, one line a file. */
    @Test
    void eachFileHasALineOfItsOwnAndArchivesAreNamedAfterWhatTheyHold() {
        TestRound.Sender sender = round.personal("Ada Brook").begin();
        sender.send(1, "one.pdf", TestRound.pdf("one"));
        sender.send(1, "two.pdf", TestRound.pdf("two"));
        JsonNode first = round.panel("Ada Brook").path("files").get(0);
        String lines = round.desk.get("/api/rounds/" + round.id + "/files.csv").text();
        assertThat(lines.lines()).hasSize(3);
        assertThat(lines).contains("Ada Brook", "Consent", "one.pdf", "two.pdf", first.path("sha256").asString(), first.path("receipt").asString());
        assertThat(round.desk.get("/api/rounds/" + round.id + "/files.xlsx").status()).isEqualTo(200);
        assertThat(round.desk.get("/api/files.zip?round=" + round.id).header("Content-Disposition")).contains(round.title() + ".zip");
        assertThat(round.desk.get("/api/files.zip?id=" + first.path("id")).header("Content-Disposition")).contains(round.title() + " - Ada Brook.zip");
        round.desk.post("/api/files/" + first.path("id") + "/review", "{\"from\":\"NONE\",\"to\":\"RETURNED\",\"reason\":\"Not signed\"}");
        assertThat(round.desk.get("/api/rounds/" + round.id + "/files.csv").text()).contains("returned", "Not signed", "identified by their own link");
        assertThat(round.panel("Ada Brook").path("row").path("files").asInt()).as("what counts").isEqualTo(1);
    }
}
