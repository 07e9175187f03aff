package oakbasket.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.APIResponse;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Route;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.FilePayload;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import org.junit.jupiter.api.Test;

/** Filing as a coordinator does it: a rule made and tried, put to what is here and taken back; the tray by keys; folders, a file looked at, renamed, put into the bin and back. */
class FilingJourneysTest extends Journey {

    private static void sendTo(long round, String person, String item, String name) {
        Page sender = browser.page(390, 844);
        sender.navigate(api.personalLink(round, person));
        filesFor(sender, item).setInputFiles(pdf(name, name));
        send(sender);
        assertThat(sender.locator("h1")).containsText("Thank you");
    }

    /** What came by post is put into the tray, filed for whom it is of, and given back. */
    @Test
    void aPaperThatCameByPostIsPutInFiledAndGivenBack() {
        long round = openRound("Posted papers", "");
        Page desk = desk("/tray");
        desk.locator("input[type=file]").setInputFiles(new FilePayload("Sallow, Rowan, signed.txt", "text/plain", "by post".getBytes(StandardCharsets.UTF_8)));
        Locator entry = desk.locator(".split li").filter(new Locator.FilterOptions().setHasText("Sallow, Rowan, signed.txt"));
        assertThat(entry).hasCount(1);
        entry.locator("button").click();
        desk.locator(".sheet pre").waitFor();
        assertThat(desk.locator(".sheet pre")).hasText("by post");
        assertThat(desk.locator(".sheet")).containsText("Put in at the desk by");
        assertThat(desk.locator("#loose-person-hint")).hasText("Its name or its folder says: rowan sallow");
        Fields.choose(desk, "Round", "Posted papers");
        Browser.assertAccessible(desk);
        entry.locator("button").press("a");
        assertThat(desk.getByText("Choose what it is")).isVisible();
        Fields.choose(desk, "Person", "Rowan Sallow");
        Fields.choose(desk, "Item", "Learning log");
        button(desk, "Accept").click();
        assertThat(desk.locator(".said").last()).containsText("1 file is filed");
        assertThat(entry).hasCount(0);
        assertThat(api.row(round, "Rowan Sallow").path("files").asInt()).isEqualTo(1);
        desk.locator(".said").last().getByText("Undo").click();
        assertThat(entry).hasCount(1);
        assertThat(api.row(round, "Rowan Sallow").path("files").asInt()).isZero();
    }

    /** An answer that is under way for the first time may be older than what changes meanwhile; the tray does not stay as it was then. */
    @Test
    void whatComesWhileTheTrayIsReadForTheFirstTimeIsSeen() {
        Page desk = desk("/");
        desk.locator("main h1").waitFor();
        desk.waitForTimeout(1_000);
        desk.route("**/api/tray", route -> {
            APIResponse old = route.fetch();
            assertThat(api.send("POST", "/api/loose?name=meanwhile.txt", "x".getBytes(StandardCharsets.UTF_8), "Content-Type", "application/octet-stream").statusCode()).isEqualTo(201);
            pause(800);
            route.fulfill(new Route.FulfillOptions().setResponse(old));
        }, new Page.RouteOptions().setTimes(1));
        desk.locator("nav a").filter(new Locator.FilterOptions().setHasText("Tray")).click();
        assertThat(desk.locator(".split li").filter(new Locator.FilterOptions().setHasText("meanwhile.txt"))).hasCount(1);
    }

    private static void pause(long milliseconds) {
        try {
            Thread.sleep(milliseconds);
        } catch (InterruptedException stopped) {
            throw new IllegalStateException(stopped);
        }
    }

    @Test
    void aRuleIsMadeTriedAppliedAndTakenBack() {
        long round = openRound("Filed by rules", "");
        sendTo(round, "Tamsin Withy", "Learning log", "log one.pdf");
        Page desk = desk("/rounds/" + round);
        desk.locator(".round-menu button").click();
        desk.getByRole(AriaRole.MENUITEM).getByText("Filing rules").click();
        assertThat(desk.locator("h1")).hasText("Filing rules");
        assertThat(desk.getByText("There are no rules yet.")).isVisible();
        button(desk, "Add a rule").click();
        assertThat(desk.locator("#rule-1-called")).isFocused();
        desk.keyboard().type("Logs");
        Locator value = desk.getByLabel("Compared with").first();
        value.fill("Learning");
        desk.getByRole(AriaRole.OPTION).or(desk.locator(".el-autocomplete-suggestion li")).filter(new Locator.FilterOptions().setHasText("Learning log")).first().click();
        Locator folder = desk.locator("#rule-1-place-folder");
        folder.fill("{round}/All logs/");
        folder.pressSequentially("{las");
        desk.locator(".el-mention-dropdown__item, .el-mention-dropdown li").first().click();
        assertThat(folder).hasValue("{round}/All logs/{last}");
        assertThat(desk.locator("dd").filter(new Locator.FilterOptions().setHasText("Filed by rules/All logs/Withy/"))).not().hasCount(0);
        Browser.assertAccessible(desk);
        folder.fill("{round}/{lost}");
        assertThat(desk.locator("#rule-1-place-folder-error")).containsText("{lost}");
        folder.fill("{round}/All logs");
        button(desk, "Try it on what is here").click();
        assertThat(desk.locator(".trial")).containsText("1 file would move");
        assertThat(desk.locator(".trial tbody tr").first()).containsText("Filed by rules/All logs/Tamsin Withy - Learning log.pdf");
        assertThat(desk.locator(".trial tbody tr").first()).containsText("item is Learning log");
        Browser.assertAccessible(desk);
        button(desk, "Keep, and move what is here").click();
        desk.locator(".el-popconfirm").getByText("Keep, and move what is here").click();
        assertThat(desk.locator(".batch")).containsText("1 file was moved");
        assertThat(Files.exists(app.data.resolve("files/Filed by rules/All logs/Tamsin Withy - Learning log.pdf"))).isTrue();
        button(desk, "Take it back").click();
        desk.locator(".el-popconfirm:visible").getByText("Take it back", new Locator.GetByTextOptions().setExact(true)).click();
        assertThat(desk.locator(".batch")).containsText("1 file is back where it was");
        assertThat(Files.exists(app.data.resolve("files/Filed by rules/Tamsin Withy/Tamsin Withy - Learning log.pdf"))).isTrue();

        desk.locator(".batch").getByText("Filing journal").click();
        assertThat(desk.locator("tbody tr").first()).containsText("Taken back");
        Browser.assertAccessible(desk);
    }

    @Test
    void theTrayIsDecidedByKeysAndTakenBack() {
        long round = openRound("Sorted by hand", "");
        api.send("PUT", "/api/rules/" + round, "{\"version\":0,\"rules\":[{\"conditions\":[{\"subject\":\"NAME\",\"test\":\"CONTAINS\",\"value\":\"unclear\"}],\"tray\":true}]}".getBytes(StandardCharsets.UTF_8), "Content-Type", "application/json");
        sendTo(round, "Tamsin Withy", "Learning log", "unclear log.pdf");
        Page desk = desk("/tray");
        Locator entry = desk.locator("li").filter(new Locator.FilterOptions().setHasText("unclear log.pdf"));
        entry.locator("button").click();
        assertThat(desk.locator(".sheet")).containsText("Sent to the tray by rule 1 of this round: name contains unclear");
        assertThat(desk.locator("#tray-person-hint")).hasText("It was sent through this person's link");
        Browser.assertAccessible(desk);
        entry.locator("button").focus();
        desk.keyboard().press("a");
        assertThat(desk.locator(".said")).containsText("1 file is filed");
        assertThat(entry).hasCount(0);
        desk.locator(".said").getByText("Undo").click();
        assertThat(entry).hasCount(1);
        Fields.choose(desk, "Person", "Rowan Sallow");
        button(desk, "Accept").click();
        assertThat(entry).hasCount(0);
        assertThat(api.row(round, "Rowan Sallow").path("files").asInt()).isEqualTo(1);
    }

    @Test
    void aFileIsLookedAtRenamedBinnedAndPutBack() {
        long round = openRound("In its folder", "");
        sendTo(round, "Tamsin Withy", "Learning log", "log.pdf");
        Page desk = desk("/folders");
        button(desk, "In its folder/").click();
        button(desk, "Tamsin Withy/").click();
        button(desk, "Tamsin Withy - Learning log.pdf").click();
        assertThat(desk.locator("aside.sheet")).containsText("log.pdf");
        assertThat(desk.locator("aside.sheet .places li")).hasCount(1);
        Browser.assertAccessible(desk);
        button(desk, "Rename").click();
        Locator name = desk.locator("#file-edit");
        name.fill("a/b.pdf");
        name.press("Enter");
        assertThat(desk.locator("#file-edit-error")).containsText("a_b.pdf");
        name.fill("Log of Tamsin.pdf");
        name.press("Enter");
        assertThat(button(desk, "Log of Tamsin.pdf")).isVisible();
        button(desk, "Take out").click();
        desk.locator("#file-edit").fill("meant for another round");
        desk.locator("#file-edit").press("Enter");
        assertThat(desk.getByText("This folder is empty.")).isVisible();
        desk.locator(".parts").getByText("Bin").click();
        Locator row = desk.locator("tbody tr").filter(new Locator.FilterOptions().setHasText("Log of Tamsin.pdf"));
        assertThat(row).containsText("meant for another round");
        Browser.assertAccessible(desk);
        row.getByText("Put back").click();
        assertThat(row).hasCount(0);
        assertThat(Files.exists(app.data.resolve("files/In its folder/Tamsin Withy/Log of Tamsin.pdf"))).isTrue();
    }
}
