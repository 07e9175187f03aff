package oakbasket.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.assertions.LocatorAssertions;
import com.microsoft.playwright.options.AriaRole;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** What an open desk lasts through: time, a server that restarts, a session that ends, a second window, a page that is left. */
class LastingDeskJourneysTest extends Journey {

    private static final ZoneId LONDON = ZoneId.of("Europe/London");

    private static Locator alert(Page page, String words) {
        return page.locator(".note[role=alert]").getByText(words);
    }

    /** A deadline on an open board: row, filter and Today change by themselves, and the board is not asked for as a whole. */
    @Test
    void aDeadlineThatPassesChangesEveryOpenScreenByItself() {
        try (PackagedApp ticking = new PackagedApp(PackagedApp.freshFolder(), "--oakbasket.demo=true", "--oakbasket.clock=2026-03-04T09:58:20Z", "--oakbasket.clock-ticks=true")) {
            Api desk = new Api(ticking.url());
            Instant now = Instant.parse(desk.get("/api/rounds/" + desk.round("Landowner") + "/board").path("now").asString());
            LocalDateTime deadline = LocalDateTime.ofInstant(now.plusSeconds(75), LONDON).truncatedTo(ChronoUnit.MINUTES);
            String sheet = """
                    {"title":"Keys back","deadlineDate":"%s","deadlineTime":"%s","zone":"Europe/London","warningHours":0,"folderPattern":"{round}","namePattern":"{person}{ext}",
                     "items":[{"title":"Key receipt","kinds":[]}],"people":[{"name":"Kay Lock","email":"kay.lock@example.org"}]}""".formatted(deadline.toLocalDate(), deadline.toLocalTime());
            long round = Api.json(desk.post("/api/rounds", sheet)).path("head").path("id").asLong();
            assertThat(desk.post("/api/rounds/" + round + "/open", "{\"version\":1}").statusCode()).isEqualTo(204);
            Page board = browser.desk(ticking, "/rounds/" + round + "?basket=" + desk.row(round, "Kay Lock").path("id").asLong());
            Page today = browser.desk(ticking, "/");
            Page rounds = browser.desk(ticking, "/rounds");
            assertThat(board.locator("main tbody tr")).containsText("time left");
            assertThat(board.locator(".panel")).containsText("time left");
            Locator overdue = today.locator("li", new Page.LocatorOptions().setHasText("Keys back").setHas(today.getByText("1 basket overdue")));
            assertThat(overdue).hasCount(0);
            List<String> asked = new CopyOnWriteArrayList<>();
            board.onRequest(request -> asked.add(request.url()));

            assertThat(board.locator("main tbody tr")).containsText("overdue", new LocatorAssertions.ContainsTextOptions().setTimeout(120_000));
            Instant seen = Instant.parse(desk.get("/api/rounds/" + round + "/board").path("now").asString());
            assertThat(seen).as("seen within two seconds, and one for looking").isBetween(deadline.atZone(LONDON).toInstant(), deadline.atZone(LONDON).toInstant().plusSeconds(3));
            assertThat(board.locator(".panel")).containsText("overdue");
            assertThat(button(board, "Overdue 1")).isVisible();
            assertThat(overdue).isVisible();
            assertThat(rounds.locator("main")).containsText("Keys back");
            assertThat(asked).as("what the open board asked for").noneMatch(url -> url.endsWith("/board")).anyMatch(url -> url.contains("/moved?since="));
        }
    }

    /** The session is kept over a restart, and what changes afterwards shows without a refresh. */
    @Test
    void aServerThatRestartsUnderAnOpenBoardIsSaidAndComesBackByItself() {
        try (PackagedApp own = new PackagedApp(PackagedApp.freshFolder(), "--oakbasket.demo=true")) {
            Api before = new Api(own.url());
            long round = before.round("Landowner");
            Page board = browser.desk(own, "/rounds/" + round);
            assertThat(board.getByText("Duncan Marsh").first()).isVisible();
            own.kill();
            assertThat(alert(board, "No connection to the server")).isVisible();
            own.start();
            assertThat(alert(board, "No connection to the server")).not().isVisible(new LocatorAssertions.IsVisibleOptions().setTimeout(20_000));
            assertThat(before.act(round, "Duncan Marsh", "NOTE", "\"text\":\"Rang him\"").statusCode()).as("the session from before the restart").isEqualTo(200);
            board.locator("#person-" + before.row(round, "Duncan Marsh").path("id").asLong()).click();
            assertThat(board.locator(".panel")).containsText("Rang him");
        }
    }

    @Test
    void aSessionThatEndsWhileComposingLosesNothing() {
        Page desk = browser.ownDesk(app, "/rounds/new");
        Locator title = desk.getByLabel("Title", new Page.GetByLabelOptions().setExact(true));
        title.fill("Weir permits");
        assertThat(desk.getByText("Saved as draft at")).isVisible();
        desk.evaluate("fetch('/api/session', {method: 'DELETE', headers: {'X-XSRF-TOKEN': document.cookie.match(/XSRF-TOKEN=([^;]+)/)[1]}})");
        title.fill("Weir permits, spring");
        assertThat(alert(desk, "Your session has ended")).isVisible();
        assertThat(title).hasValue("Weir permits, spring");
        button(desk, "Sign in here").click();
        assertThat(desk.getByRole(AriaRole.DIALOG)).isVisible();
        Browser.assertAccessible(desk);
        desk.getByRole(AriaRole.DIALOG).getByLabel("Password").fill(Api.PASSWORD);
        desk.keyboard().press("Enter");
        assertThat(alert(desk, "Your session has ended")).not().isVisible();
        assertThat(desk.getByText("Saved as draft at")).isVisible();
        String id = desk.url().replaceAll(".*/rounds/(\\d+)/.*", "$1");
        assertThat(api.get("/api/rounds/" + id + "/sheet").path("sheet").path("title").asString()).isEqualTo("Weir permits, spring");
    }

    /** What only one window changed is in both; what both changed is asked. */
    @Test
    void twoWindowsOnOneDraftLoseNothing() {
        Page one = desk("/rounds/new");
        one.getByLabel("Title", new Page.GetByLabelOptions().setExact(true)).fill("Otter survey");
        assertThat(one.getByText("Saved as draft at")).isVisible();
        one.waitForURL(Pattern.compile("/rounds/\\d+/sheet"));
        Page other = browser.window(one, one.url());
        document(other, 1).fill("Field notes");
        assertThat(other.getByText("Saved as draft at")).isVisible();
        one.getByLabel("Note to the senders").fill("Wet feet likely.");
        assertThat(one.locator(".said").last()).containsText("Both changes are in it now");
        assertThat(document(one, 1)).hasValue("Field notes");
        assertThat(one.getByText("Saved as draft at")).isVisible();

        other.getByLabel("Title", new Page.GetByLabelOptions().setExact(true)).fill("Otter survey, upper river");
        one.getByLabel("Title", new Page.GetByLabelOptions().setExact(true)).fill("Otter survey, lower river");
        Page asked = shown(one, other);
        assertThat(asked.getByRole(AriaRole.DIALOG)).containsText("Otter survey, upper river");
        assertThat(asked.getByRole(AriaRole.DIALOG)).containsText("Otter survey, lower river");
        Browser.assertAccessible(asked);
        asked.getByRole(AriaRole.DIALOG).getByText("Keep this").first().click();
        assertThat(asked.getByRole(AriaRole.DIALOG)).not().isVisible();
        assertThat(asked.getByText("Saved as draft at")).isVisible();
        assertThat(asked.getByLabel("Note to the senders")).hasValue("Wet feet likely.");
    }

    /** The window of the two that asks. */
    private static Page shown(Page one, Page other) {
        one.waitForCondition(() -> one.getByRole(AriaRole.DIALOG).isVisible() || other.getByRole(AriaRole.DIALOG).isVisible());
        return one.getByRole(AriaRole.DIALOG).isVisible() ? one : other;
    }

    @Test
    void whatWasTypedWhenAPageIsLeftAtOnceIsThereAgain() {
        Page desk = desk("/rounds/new");
        desk.getByLabel("Title", new Page.GetByLabelOptions().setExact(true)).fill("Heron count");
        desk.waitForURL(Pattern.compile("/rounds/\\d+/sheet"));
        String sheet = desk.url();
        desk.getByLabel("Note to the senders").fill("From the bank only.");
        desk.navigate(app.url() + "/favicon.svg");
        desk.navigate(sheet);
        assertThat(desk.getByLabel("Note to the senders")).hasValue("From the bank only.");
        assertThat(desk.getByText("Saved as draft at")).isVisible();
        String id = sheet.replaceAll(".*/rounds/(\\d+)/.*", "$1");
        desk.waitForCondition(() -> api.get("/api/rounds/" + id + "/sheet").path("sheet").path("note").asString().equals("From the bank only."));
    }
}
