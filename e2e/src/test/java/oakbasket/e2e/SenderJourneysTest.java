package oakbasket.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Dialog;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Request;
import com.microsoft.playwright.assertions.LocatorAssertions.HasTextOptions;
import com.microsoft.playwright.options.FilePayload;
import java.util.HexFormat;
import java.util.List;
import java.util.Random;
import java.util.concurrent.CopyOnWriteArrayList;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Who is it, and what becomes of a mistake: claimed files from both sides, a corrected address, a page that was loaded again. */
class SenderJourneysTest extends Journey {

    @Test
    void whatIsClaimedWaitsForTheCoordinatorsYesAndCanBeTakenBack() {
        long round = openRound("Claimed logs", "");
        Page stranger = openLink(round);
        stranger.getByLabel("Your name").fill("Somebody Else");
        stranger.getByLabel("Your e-mail address").fill("tamsin.withy@example.org");
        stranger.getByLabel("Choose files for Learning log").setInputFiles(pdf("log.pdf", "claimed"));
        send(stranger);
        assertThat(stranger.locator(".code")).isVisible();

        Page desk = browser.desk(app);
        desk.getByText("claimed file: whose is it?").first().waitFor();
        desk.navigate(app.url() + "/rounds/" + round);
        assertThat(desk.locator("main tbody tr", new Page.LocatorOptions().setHasText("Tamsin Withy"))).containsText("1 file claimed");
        desk.getByText("Tamsin Withy").first().click();
        Locator panel = desk.locator("aside.panel");
        assertThat(panel).containsText("Somebody Else <tamsin.withy@example.org> sent this through the open link and says to be Tamsin Withy");
        Browser.assertAccessible(desk);
        panel.getByText("Yes, from Tamsin Withy").click();
        assertThat(desk.locator(".said")).containsText("Counts as sent by Tamsin Withy");
        assertThat(panel.locator("h2 ~ p, header p").last()).containsText("all in");
        desk.locator(".said").getByText("Undo").click();
        assertThat(panel.getByText("Yes, from Tamsin Withy")).isVisible();
        assertThat(api.row(round, "Tamsin Withy").path("files").asInt()).isZero();

        // The same with one key while checking what has come.
        desk.navigate(app.url() + "/rounds/" + round + "/review");
        assertThat(desk.getByText("Yes, from Tamsin Withy")).isVisible();
        desk.keyboard().press("a");
        assertThat(desk.locator(".said").last()).containsText("Say first whose it is.");
        desk.keyboard().press("y");
        assertThat(desk.getByText("Yes, from Tamsin Withy")).hasCount(0);
        desk.keyboard().press("a");
        assertThat(desk.locator("h1")).hasText("0 files to check");
        JsonNode row = api.row(round, "Tamsin Withy");
        assertThat(row.path("progress").asString()).isEqualTo("CHECKED");
        assertThat(row.path("claimed").asInt()).isZero();
    }

    @Test
    void aNoKeepsItApartAndOutOfTheWay() {
        long round = openRound("Declined logs", "");
        Page stranger = openLink(round);
        stranger.getByLabel("Your name").fill("Mallory");
        stranger.getByLabel("Your e-mail address").fill("ROWAN.SALLOW@example.org");
        stranger.getByLabel("Choose files for Learning log").setInputFiles(pdf("log.pdf", "declined"));
        send(stranger);
        assertThat(stranger.locator(".code")).isVisible();
        Page desk = desk("/rounds/" + round + "/review");
        desk.getByText("Yes, from Rowan Sallow").waitFor();
        desk.keyboard().press("n");
        assertThat(desk.getByText("Everything is checked.")).isVisible();
        desk.reload();
        assertThat(desk.getByText("Everything is checked.")).isVisible();
        desk.navigate(app.url() + "/rounds/" + round + "?basket=" + api.row(round, "Rowan Sallow").path("id"));
        assertThat(desk.locator("aside.panel")).containsText("You said this is not theirs.");
        desk.locator("aside.panel").getByText("Decide anew").click();
        assertThat(desk.locator("aside.panel").getByText("Yes, from Rowan Sallow")).isVisible();
    }

    @Test
    void aCorrectedAddressIsTheOneThatCounts() {
        long round = openRound("Corrected logs", "");
        Page sender = openLink(round);
        sender.getByLabel("Your name").fill("Willa Wrong");
        sender.getByLabel("Your e-mail address").fill("willa.wrong@example.net");
        sender.getByLabel("Choose files for Anything else").setInputFiles(new FilePayload[] {pdf("good.pdf", "x"), new FilePayload("page.html", "text/html", "<html></html>".getBytes())});
        send(sender);
        assertThat(sender.locator("main")).containsText("Save it as PDF or plain text");
        sender.getByLabel("Your name").fill("Willa Right");
        sender.getByLabel("Your e-mail address").fill("willa.right@example.net");
        sender.getByLabel("Remove page.html").click();
        sender.locator("button[type=submit]").click();
        assertThat(sender.locator(".code")).isVisible();
        assertThat(api.row(round, "Willa Right").path("files").asInt()).isEqualTo(1);
        assertThat(api.get("/api/rounds/" + round + "/board").path("rows").toString()).doesNotContain("Willa Wrong");
    }

    @Test
    void aPageThatIsLoadedAgainGoesOnWhereTheFileStopped() throws Exception {
        long round = openRound("Loaded again", "");
        Page sender = browser.page(1280, 800);
        sender.onDialog(Dialog::accept);
        List<String> offsets = new CopyOnWriteArrayList<>();
        sender.onRequest(request -> {
            if (request.method().equals("PATCH")) {
                offsets.add(header(request, "upload-offset"));
            }
        });
        String link = api.personalLink(round, "Rowan Sallow");
        sender.navigate(link);
        Browser.slowDown(sender, 3_000_000);
        byte[] content = new byte[16_000_000];
        new Random(5).nextBytes(content);
        java.nio.file.Path film = java.nio.file.Files.write(PackagedApp.freshFolder().resolve("film.bin"), content);
        sender.getByLabel("Choose files for Anything else").setInputFiles(film);
        send(sender);
        sender.waitForFunction("() => { const p = document.querySelector('footer progress'); return p && p.value > 6e6 }");
        sender.reload();
        Browser.slowDown(sender, -1);
        String sha256 = HexFormat.of().formatHex(java.security.MessageDigest.getInstance("SHA-256").digest(content));
        assertThat(sender.locator(".sha")).hasText(sha256, new HasTextOptions().setTimeout(60_000));
        assertThat(offsets.get(0)).isEqualTo("0");
        assertThat(Long.parseLong(offsets.get(offsets.size() - 1))).as("not from the beginning").isGreaterThan(1_000_000);
        assertThat(api.row(round, "Rowan Sallow").path("files").asInt()).isEqualTo(1);
        assertThat(sender.evaluate("Object.keys(localStorage).length")).as("nothing of it stays in the browser").isEqualTo(0);
    }

    private static String header(Request request, String name) {
        return request.headers().getOrDefault(name, "");
    }
}
