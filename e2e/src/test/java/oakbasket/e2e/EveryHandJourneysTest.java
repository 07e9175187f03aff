package oakbasket.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Download;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.nio.file.Files;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** The desk by keyboard alone, by finger, on a small screen, and with every dialog open; and what can be taken back. */
class EveryHandJourneysTest extends Journey {

    /** WCAG 2.1.1: everything from the keyboard. Not one click from the door to an opened round. */
    @Test
    void aRoundIsOpenedFromSigningInOnWithTheKeyboardAlone() {
        Page desk = browser.page(1280, 800);
        desk.navigate(app.url() + "/");
        reach(desk, desk.getByLabel("E-mail"));
        desk.keyboard().type(Api.EMAIL);
        desk.keyboard().press("Tab");
        desk.keyboard().type(Api.PASSWORD);
        desk.keyboard().press("Enter");
        desk.locator(".bar").waitFor();
        desk.locator("main h1").waitFor();
        reach(desk, desk.locator("nav a", new Page.LocatorOptions().setHasText("Rounds")), 5);
        desk.keyboard().press("Enter");
        reach(desk, desk.locator("main a", new Page.LocatorOptions().setHasText("Compose a round")));
        desk.keyboard().press("Enter");
        reach(desk, desk.getByLabel("Title", new Page.GetByLabelOptions().setExact(true)));
        desk.keyboard().type("Gate codes");
        desk.keyboard().press("Enter");
        assertThat(desk.getByRole(AriaRole.DIALOG)).not().isVisible();
        reach(desk, document(desk, 1));
        desk.keyboard().type("Signed form");
        reach(desk, desk.getByLabel("Type or paste people"));
        desk.keyboard().type("Gail Gate <gail.gate@example.org>");
        reach(desk, button(desk, "Add these people"));
        desk.keyboard().press("Enter");
        assertThat(desk.getByText("1 person is asked")).isVisible();
        reach(desk, desk.getByLabel("Deadline date"));
        desk.keyboard().type("30/6/2099");
        desk.keyboard().press("Enter");
        reach(desk, button(desk, "Open the round"));
        desk.keyboard().press("Enter");
        assertThat(desk.getByRole(AriaRole.DIALOG)).isVisible();
        reach(desk, button(desk, "Open it now"));
        desk.keyboard().press("Enter");
        desk.waitForURL(Pattern.compile("/rounds/\\d+$"));
        assertThat(desk.locator("main tbody tr")).containsText("Gail Gate");
    }

    /** Presses Tab until something has the keyboard; fails when it never does. */
    private static void reach(Page page, Locator target) {
        reach(page, target, 120);
    }

    private static void reach(Page page, Locator target, int atMost) {
        target.first().waitFor();
        for (int presses = 0; presses < atMost; presses++) {
            if ((boolean) target.first().evaluate("element => element === document.activeElement")) {
                return;
            }
            page.keyboard().press("Tab");
        }
        throw new AssertionError("The keyboard never comes to " + target);
    }

    @ParameterizedTest
    @ValueSource(strings = {"/", "/rounds", "/rounds/new", "/contacts", "/post", "/setup", "/rounds/1", "/rounds/1/change", "/rounds/1/review", "/rounds/1/again", "/tray", "/folders", "/journal", "/filing", "/rounds/1/filing"})
    void everyViewFitsATabletAndCanBeRead(String path) {
        String at = path.replace("/1", "/" + api.round("Landowner"));
        Page desk = browser.tablet(app, at);
        desk.locator("main h1").waitFor();
        Browser.assertFits(desk);
        Browser.assertAccessible(desk);
    }

    @Test
    void aFingerOpensBasketsAndMenus() {
        Page desk = browser.tablet(app, "/rounds/" + api.round("Landowner"));
        desk.locator("main tbody tr").first().tap();
        assertThat(desk.locator(".panel")).isVisible();
        desk.locator(".panel").getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("More").setExact(true)).tap();
        assertThat(desk.locator(".panel").getByRole(AriaRole.MENUITEM).first()).isVisible();
        desk.locator(".panel").getByRole(AriaRole.MENUITEM).getByText("Note…").tap();
        assertThat(desk.getByLabel("Note for your colleagues")).isVisible();
        Browser.assertFits(desk);
        Browser.assertAccessible(desk);
    }

    /** The cursor stays with the document that moves, and comes to where one is about to type. */
    @Test
    void theCursorFollowsWhatMovedAndWhatIsAskedFor() {
        Page desk = desk("/rounds/new");
        document(desk, 1).fill("First");
        document(desk, 1).press("Enter");
        desk.keyboard().type("Second");
        button(desk, "More 2. Document").click();
        desk.getByLabel("Move document 2 up").click();
        assertThat(document(desk, 1)).hasValue("Second");
        assertThat(desk.getByLabel("Move document 1 down")).isFocused();
        desk.keyboard().press("Enter");
        assertThat(document(desk, 2)).hasValue("Second");
        assertThat(desk.getByLabel("Move document 2 up")).isFocused();
        desk.getByText("Keep this checklist…").click();
        assertThat(desk.getByLabel("Name it")).isFocused();
    }

    @Test
    void everyDialogCanBeRead() {
        long round = openRound("Dialogs", "");
        Page desk = desk("/rounds/" + round);
        desk.locator("main h1").waitFor();
        desk.keyboard().press("?");
        assertThat(desk.getByRole(AriaRole.DIALOG)).isVisible();
        Browser.assertAccessible(desk);
        desk.keyboard().press("Escape");
        button(desk, "More").click();
        desk.getByText("Close the round", new Page.GetByTextOptions().setExact(true)).click();
        assertThat(desk.getByRole(AriaRole.DIALOG)).containsText("Links already sent out will refuse at once");
        Browser.assertAccessible(desk);
        button(desk, "Cancel").click();
        api.act(round, "Tamsin Withy", "PAUSE", "\"on\":true");
        button(desk, "More").click();
        desk.getByText("What was done", new Page.GetByTextOptions().setExact(true)).click();
        assertThat(desk.getByRole(AriaRole.DIALOG)).containsText("Not chased any more: Tamsin Withy");
        Browser.assertAccessible(desk);
        desk.getByRole(AriaRole.DIALOG).getByText("Undo").click();
        assertThat(desk.getByRole(AriaRole.DIALOG)).containsText("undone");
        assertThat(api.row(round, "Tamsin Withy").path("paused").asBoolean()).isFalse();
    }

    /** Somebody marked not to be chased is written to only when that is said. */
    @Test
    void whoeverIsNotChasedIsLeftOutUntilThatIsMeant() {
        long round = openRound("Not chased", "");
        api.act(round, "Rowan Sallow", "PAUSE", "\"on\":true");
        Page desk = desk("/rounds/" + round);
        button(desk, "Everybody 2").waitFor();
        desk.getByLabel("Choose everybody shown").click();
        button(desk, "Write to them…").click();
        assertThat(desk.getByText("1 person gets none: not chased")).isVisible();
        assertThat(button(desk, "Send 1 letter")).isVisible();
        desk.getByText("Write all the same").click();
        assertThat(button(desk, "Send 2 letters")).isVisible();
    }

    /** A fact of the trade (common practice, no source): what was sent by mistake has to leave the client's folder, and may turn out not to have been one. */
    @Test
    void aFileThatShouldNeverHaveComeIsTakenOutAndPutBack() throws Exception {
        long round = openRound("Wrong paper", "");
        Page sender = browser.page(390, 844);
        sender.navigate(api.personalLink(round, "Tamsin Withy"));
        sender.getByLabel("Choose files for Learning log").setInputFiles(pdf("invoice\u202Efdp.pdf", "somebody else's"));
        send(sender);
        assertThat(sender.getByText("Everything has arrived")).isVisible();
        Page desk = desk("/rounds/" + round + "?basket=" + api.row(round, "Tamsin Withy").path("id").asLong());
        Locator panel = desk.locator(".panel");
        assertThat(panel.locator("bdi").getByText("U+202E")).isVisible();
        panel.getByText("Remove…").first().click();
        desk.getByLabel("Why does this file not belong here?").fill("It belongs to somebody else");
        button(desk, "Remove it").click();
        assertThat(panel).containsText("Removed files");
        assertThat(desk.locator(".counts")).containsText("0 files from 0 senders");
        assertThat(Files.exists(app.data.resolve("files/Wrong paper/Tamsin Withy/Tamsin Withy - Learning log.pdf"))).isFalse();
        Browser.assertAccessible(desk);
        panel.getByText("Put back", new Locator.GetByTextOptions().setExact(true)).click();
        assertThat(desk.locator(".counts")).containsText("1 file from 1 sender");
        assertThat(Files.exists(app.data.resolve("files/Wrong paper/Tamsin Withy/Tamsin Withy - Learning log.pdf"))).isTrue();
        assertThat(panel).containsText("File put back");
    }

    @Test
    void allLinksAreCopiedAsATableAndFilesAreListedOneByOne() throws Exception {
        long round = openRound("Links out", "");
        Page desk = desk("/rounds/" + round);
        button(desk, "More").click();
        desk.getByText("Copy all links").click();
        assertThat(desk.locator(".said").last()).containsText("2 links copied");
        String table = (String) desk.evaluate("navigator.clipboard.readText()");
        assertThat(table.lines()).hasSize(2).allMatch(line -> line.matches("[^\t]+\t[^\t]+@example\\.org\thttp://localhost:\\d+/b/\\S+"));
        button(desk, "More").click();
        Download csv = desk.waitForDownload(() -> desk.getByText("Who sent what (CSV)").click());
        assertThat(Files.readString(csv.path())).contains("Request link", api.personalLink(round, "Rowan Sallow"));
    }

    /** On the page of senders: one place, another file, and the first one makes way; what is wrong once it is sent has a way too. */
    @Test
    void choosingAnotherFileWhereOneFitsTakesThePlaceOfTheFirst() {
        String sheet = """
                {"title":"One certificate","deadlineDate":"2099-06-30","zone":"Europe/London","folderPattern":"{round}","namePattern":"{person}{ext}","items":[{"title":"Certificate","kinds":["PDF"]}],
                 "people":[{"name":"Una Place","email":"una.place@example.org"}]}""";
        long round = Api.json(api.post("/api/rounds", sheet)).path("head").path("id").asLong();
        api.post("/api/rounds/" + round + "/open", "{\"version\":1}");
        Page sender = browser.page(390, 844);
        sender.navigate(api.personalLink(round, "Una Place"));
        sender.getByLabel("Choose files for Certificate").setInputFiles(file("old.doc", "old"));
        send(sender);
        assertThat(sender.getByText("Please remove or replace the marked files first.")).isVisible();
        sender.getByLabel("Choose files for Certificate").setInputFiles(pdf("new.pdf", "new"));
        assertThat(sender.getByText("Please remove or replace the marked files first.")).not().isVisible();
        assertThat(sender.locator(".chosen li")).hasCount(1);
        assertThat(sender.locator(".chosen")).containsText("new.pdf");
        assertThat(sender.locator(".card")).not().containsText("not added");
        send(sender);
        assertThat(sender.getByText("Everything has arrived")).isVisible();
        sender.getByText("Add another document").click();
        sender.getByLabel("Show: Certificate").click();
        assertThat(sender.getByText("Was something wrong? Tell")).isVisible();
        Browser.assertAccessible(sender);
    }
}
