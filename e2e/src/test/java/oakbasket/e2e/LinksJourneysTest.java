package oakbasket.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Download;
import com.microsoft.playwright.FrameLocator;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.LoadState;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Links as a coordinator has them in hand, and as the people feel it who hold them. */
class LinksJourneysTest extends Journey {

    private static Locator choose(Page desk, String person) {
        desk.locator("main tbody").getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName(person).setExact(true)).click();
        return desk.locator("aside");
    }

    @Test
    void pausingIsFeltAtOnceAndUndoneAndTheStoryKeepsIt() {
        long round = openRound("Towpath keys", "");
        Page sender = browser.page(390, 844);
        sender.navigate(api.get("/api/baskets/" + api.row(round, "Tamsin Withy").path("id").asLong() + "/link").path("url").asString());
        assertThat(sender.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setName("Towpath keys"))).isVisible();

        Page desk = desk("/links?round=" + round);
        Locator sheet = choose(desk, "Tamsin Withy");
        button(desk, "Pause").click();
        assertThat(sheet).containsText("paused");
        sender.reload();
        assertThat(sender.getByRole(AriaRole.HEADING)).hasText("This link is paused");
        sheet.locator(".story").getByRole(AriaRole.BUTTON).first().click();
        assertThat(sheet.locator(".story")).containsText("undone");
        sender.reload();
        assertThat(sender.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setName("Towpath keys"))).isVisible();

        desk.navigate(app.url() + "/rounds/" + round + "?basket=" + api.row(round, "Tamsin Withy").path("id").asLong());
        assertThat(desk.locator(".panel .story")).containsText("Link paused");
        fromMenu(desk, "Link and its terms");
        assertThat(desk.locator("aside h2")).hasText("Tamsin Withy");
    }

    @Test
    void termsAreSetOnTheScreenAndSaidInOneSentence() {
        long round = openRound("Sluice logs", "");
        Page desk = desk("/links?round=" + round);
        Locator sheet = choose(desk, "Open link");
        button(desk, "Change terms").click();
        sheet.getByText("for some days").click();
        button(desk, "2 days").click();
        desk.getByLabel("Sendings at most").fill("3");
        desk.getByLabel("One file at most, MiB").fill("9");
        desk.getByLabel("All files at most, MiB").fill("4");
        button(desk, "Use “sluice-logs”").click();
        button(desk, "Save terms").click();
        assertThat(sheet.getByText("One file cannot be larger than all together")).isVisible();
        desk.getByLabel("All files at most, MiB").fill("40");
        button(desk, "Save terms").click();
        assertThat(sheet).containsText("takes 3 sendings, files up to 9 MiB, 40 MiB in all");
        assertThat(sheet.locator(".address")).containsText("/b/sluice-logs/");
        assertThat(button(desk, "Ending within 14 days 1")).isVisible();
    }

    @Test
    void manyAreRenewedAtOnceAndPrinted() throws Exception {
        long round = openRound("Gate numbers", "");
        Page desk = desk("/links?round=" + round);
        desk.getByLabel("Choose all on this page").check();
        assertThat(desk.getByText("3 links chosen")).isVisible();
        button(desk, "Renew").click();
        desk.getByRole(AriaRole.MENUITEM).getByText("For 7 days from now").click();
        assertThat(desk.getByText("3 links changed")).isVisible();
        assertThat(button(desk, "Ending within 14 days 3")).isVisible();
        button(desk, "Print hand-outs").click();
        Download pdf = desk.waitForDownload(() -> button(desk, "Make the PDF").click());
        assertThat(Files.readString(pdf.path(), StandardCharsets.ISO_8859_1)).startsWith("%PDF-");
    }

    /** Another desk pauses; this one shows it by itself. */
    @Test
    void theListIsLive() {
        long round = openRound("Weed reports", "");
        Page desk = desk("/links?round=" + round);
        Locator row = desk.locator("main tbody tr", new Page.LocatorOptions().setHasText("Rowan Sallow"));
        assertThat(row).containsText("live");
        JsonNode link = api.get("/api/links?find=Rowan&round=" + round).path("links").get(0);
        assertThat(api.post("/api/links/acts", "{\"kind\":\"PAUSE\",\"ids\":[" + link.path("id") + "]}").statusCode()).isEqualTo(200);
        assertThat(row).containsText("paused");
    }

    /** In a frame only on a site that is listed; whoever stands elsewhere shows nothing, and the usual page stands nowhere. */
    @Test
    void theFrameStandsOnListedSitesOnly() throws Exception {
        long round = openRound("Open days", "");
        Page desk = desk("/links?round=" + round);
        choose(desk, "Open link");
        button(desk, "Show it on a web site…").click();
        try (Site partner = new Site(); Site foreign = new Site()) {
            desk.getByLabel("Web sites").fill(partner.origin());
            button(desk, "Save web sites").click();
            assertThat(desk.getByText("Web sites saved")).isVisible();
            String code = desk.getByLabel("Put this into your page").inputValue();
            assertThat(partner.shows(code).getByRole(AriaRole.HEADING, new FrameLocator.GetByRoleOptions().setName("Open days"))).isVisible();
            assertThat(foreign.shows(code).locator("body")).not().containsText("Open days");
            assertThat(partner.shows(code.replace("/f/", "/b/")).locator("body")).not().containsText("Open days");
        }
    }

    /** A web site of one page. */
    private static final class Site implements AutoCloseable {
        private final HttpServer server;
        private String html = "";

        Site() throws IOException {
            server = HttpServer.create(new InetSocketAddress("localhost", 0), 0);
            server.createContext("/", exchange -> {
                byte[] page = html.getBytes(StandardCharsets.UTF_8);
                exchange.getResponseHeaders().set("Content-Type", "text/html;charset=UTF-8");
                exchange.sendResponseHeaders(200, page.length);
                exchange.getResponseBody().write(page);
                exchange.close();
            });
            server.start();
        }

        String origin() {
            return "http://localhost:" + server.getAddress().getPort();
        }

        FrameLocator shows(String code) {
            html = "<!doctype html><title>A site</title>" + code;
            Page page = browser.elsewhere();
            page.navigate(origin() + "/");
            page.waitForLoadState(LoadState.NETWORKIDLE);
            return page.frameLocator("iframe");
        }

        @Override
        public void close() {
            server.stop(0);
        }
    }
}
