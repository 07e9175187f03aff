package oakbasket.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Download;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.FilePayload;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** Contacts in files, people met through an open link, templates, and what the desk says when something fails, in a real browser. */
class MoreJourneysTest extends Journey {

    @Test
    void aFileOfAnOldProgramIsReadInTheRightCharacterSet() {
        Page desk = desk("/contacts/import");
        byte[] old = "Name;E-mail\r\nZoë Réed;zoe.reed@example.org\r\n".getBytes(Charset.forName("windows-1252"));
        desk.locator("input[type=file]").setInputFiles(new FilePayload("old.csv", "text/csv", old));
        assertThat(desk.locator(".field", new Page.LocatorOptions().setHasText("Character set"))).containsText("Windows-1252");
        assertThat(desk.locator(".field", new Page.LocatorOptions().setHasText("Columns are parted by"))).containsText("semicolons");
        assertThat(desk.getByText("Zoë Réed").first()).isVisible();
        Fields.choose(desk, "Character set", "UTF-8");
        assertThat(desk.getByText("Zo\uFFFD R\uFFFDed").first()).isVisible();
        Fields.choose(desk, "Character set", "Windows-1252");
        button(desk, "Import: add 1, change 0").click();
        assertThat(desk.getByText("Done: 1 added, 0 changed.")).isVisible();
        desk.getByText("Undo the import").click();
        assertThat(desk.getByText("Choose a CSV or vCard file")).isVisible();
        assertThat(api.get("/api/contacts?find=zoe.reed").path("total").asInt()).isZero();
    }

    @Test
    void whatIsNoTableIsRefusedInPlainWordsAndAnAddressBookNeedsNoMapping() {
        Page desk = desk("/contacts/import");
        desk.locator("input[type=file]").setInputFiles(new FilePayload("book.csv", "text/csv", "PK\u0003\u0004rest".getBytes(StandardCharsets.ISO_8859_1)));
        assertThat(desk.getByRole(AriaRole.ALERT)).containsText("Save the sheet as CSV in your spreadsheet program");
        Browser.assertAccessible(desk);
        String card = "BEGIN:VCARD\r\nVERSION:4.0\r\nFN:Vera Card\r\nEMAIL:vera.card@example.org\r\nEND:VCARD\r\n";
        desk.locator("input[type=file]").setInputFiles(new FilePayload("people.vcf", "text/vcard", card.getBytes(StandardCharsets.UTF_8)));
        assertThat(desk.getByText("What the columns hold")).not().isVisible();
        assertThat(desk.getByText("Vera Card")).isVisible();
        button(desk, "Import something else").click();
        assertThat(desk.getByLabel("Or paste from a spreadsheet")).isVisible();
    }

    @Test
    void contactsAreTakenAwayAndPutIntoGroups() throws Exception {
        Page desk = desk("/contacts?group=Placement%20trainees");
        assertThat(desk.locator("main tbody tr")).hasCount(10);
        Download csv = desk.waitForDownload(() -> desk.getByText("Take away as CSV").click());
        assertThat(Files.readString(csv.path()).lines().count()).isEqualTo(11);
        Download cards = desk.waitForDownload(() -> desk.getByText("Take away as vCard").click());
        assertThat(Files.readString(cards.path()).split("BEGIN:VCARD")).hasSize(11);
        desk.locator("main tbody input[type=checkbox]").nth(0).check();
        desk.locator("main tbody input[type=checkbox]").nth(1).check();
        desk.getByPlaceholder("Group").fill("Second years");
        button(desk, "Put into a group").click();
        assertThat(button(desk, "Second years 2")).isVisible();
        desk.locator(".said").last().getByText("Undo").click();
        assertThat(button(desk, "Second years 0")).isVisible();
        button(desk, "Second years 0").click();
        desk.getByText("Remove the empty group Second years").click();
        assertThat(button(desk, "Second years 0")).not().isVisible();
    }

    @Test
    void aWalkInIsMatchedWithThePersonWhoWasAskedAndPartedAgain() {
        long round = openRound("Logs of a walk-in", "");
        Page sender = openLink(round);
        sender.getByLabel("Choose files for Learning log").setInputFiles(pdf("signed.pdf", "walk-in"));
        sender.getByLabel("Your name").fill("Tamsin Withey");
        sender.getByLabel("Your e-mail address").fill("tamsin.private@example.net");
        send(sender);
        assertThat(sender.locator(".receipt li")).hasCount(1);

        Page desk = desk("/rounds/" + round + "?show=walkIns");
        desk.locator("main tbody").getByText("Tamsin Withey").click();
        desk.getByText("Complete, match or discard").click();
        assertThat(desk.getByText(Pattern.compile("names \\d+ % alike"))).isVisible();
        desk.getByLabel("Or find who it is").pressSequentially("quentin");
        desk.locator(".found li:visible").first().click();
        assertThat(desk.locator(".meant")).containsText("Quentin Ford");
        Browser.assertAccessible(desk);
        button(desk, "This is the same person").first().click();
        assertThat(desk.locator("h1")).hasText("Tamsin Withy");
        assertThat(desk.getByText("tamsin.private@example.net")).isVisible();
        assertThat(desk.locator(".rounds")).containsText("Learning log");
        desk.locator(".said").last().getByText("Undo").click();
        assertThat(desk.getByText("tamsin.private@example.net")).not().isVisible();
        assertThat(api.row(round, "Tamsin Withey").path("walkIn").asBoolean()).isTrue();
    }

    @Test
    void aTemplateIsKeptReplacedUsedAndThrownAway() {
        Page desk = desk("/rounds/new");
        desk.getByLabel("Title").fill("Yearly statement");
        document(desk, 1).fill("Statement");
        desk.getByText("Keep as a template…").click();
        button(desk, "Keep").click();
        assertThat(desk.getByText("Give it a name")).isVisible();
        desk.getByLabel("Name it").fill("Yearly");
        button(desk, "Keep").click();
        assertThat(desk.locator(".said").last()).containsText("Kept");
        desk.getByText("Keep as a template…").click();
        desk.getByLabel("Name it").fill("Yearly");
        button(desk, "Keep").click();
        assertThat(desk.getByText("There is already one called “Yearly”")).isVisible();
        button(desk, "Replace it").click();
        Fields.pick(desk, "Take items from a kept checklist", "Consent pack");
        assertThat(document(desk, 2)).hasValue("Signed access consent");

        desk.navigate(app.url() + "/rounds");
        Fields.pick(desk, "Begin from a template", "Yearly");
        desk.waitForURL(Pattern.compile("/rounds/\\d+/sheet"));
        assertThat(desk.getByLabel("Title")).hasValue("Yearly statement");
        assertThat(document(desk, 1)).hasValue("Statement");
        desk.navigate(app.url() + "/setup");
        desk.getByLabel("Throw away: Yearly").click();
        assertThat(desk.getByLabel("Throw away: Yearly")).not().isVisible();
        desk.locator(".said").last().getByText("Undo").click();
        assertThat(desk.getByLabel("Throw away: Yearly")).isVisible();
    }

    @Test
    void roundsThatGatherStandFirstAndOneIsFoundByAFewLetters() {
        Page desk = desk("/rounds");
        Locator rows = desk.locator("main tbody tr");
        assertThat(rows.first()).containsText("gathering");
        desk.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(Pattern.compile("^Drafts \\d+$"))).click();
        desk.waitForURL(Pattern.compile("state=DRAFT"));
        assertThat(rows.first()).containsText("draft, saved");
        assertThat(rows.filter(new Locator.FilterOptions().setHasText("gathering"))).hasCount(0);
        desk.reload();
        assertThat(rows.first()).containsText("draft, saved");
        desk.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(Pattern.compile("^All \\d+$"))).click();
        desk.getByLabel("Find a round").fill("landowner");
        assertThat(rows).hasCount(1);
        desk.getByLabel("Find a round").fill("no such round");
        assertThat(desk.getByText("No round fits.")).isVisible();
        Browser.assertAccessible(desk);
    }

    @Test
    void aNoteForColleaguesNeverReachesTheSender() {
        long round = api.round("Landowner");
        Page desk = desk("/rounds/" + round + "?basket=" + api.row(round, "Quentin Ford").path("id"));
        Locator panel = desk.locator(".panel");
        fromMenu(desk, "Note…");
        panel.getByLabel("Note for your colleagues").fill("rings on Fridays only");
        panel.getByText("Keep the note").click();
        assertThat(panel.locator("p.note")).hasText("rings on Fridays only");
        assertThat(panel).containsText("Robin Fenn");
        Page sender = browser.page(390, 844);
        sender.navigate(api.personalLink(round, "Quentin Ford"));
        sender.locator("h2").first().waitFor();
        assertThat(sender.content()).doesNotContain("rings on Fridays");
        desk.locator(".said").last().getByText("Undo").click();
        assertThat(panel.locator("p.note")).not().isVisible();
    }

    @Test
    void aServerThatCannotBeReachedIsSaidSoAndNothingTypedIsLost() {
        Page desk = desk("/contacts/new");
        desk.getByLabel("Name").fill("Offline Person");
        desk.getByLabel("E-mail").fill("offline@example.org");
        desk.route("**/api/contacts", route -> route.abort());
        button(desk, "Save").click();
        assertThat(desk.getByText("Check your connection and try again.")).isVisible();
        assertThat(desk.getByLabel("Name")).hasValue("Offline Person");
        desk.unroute("**/api/contacts");
        button(desk, "Save").click();
        desk.waitForURL(Pattern.compile("/contacts/\\d+"));
        assertThat(desk.locator("h1")).hasText("Offline Person");
        desk.route("**/api/contacts?**", route -> route.abort());
        desk.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName("Contacts")).click();
        assertThat(desk.locator(".failure")).containsText("The server cannot be reached");
        desk.unroute("**/api/contacts?**");
        button(desk, "Try again").click();
        assertThat(desk.locator("main tbody tr").first()).isVisible();
    }

    @Test
    void aSeriesIsChangedAndItsNextDatesFollow() {
        Page desk = desk("/rounds");
        desk.getByLabel("Change: River-fly survey sheets").click();
        assertThat(desk.getByText("Due the last working day of each month")).isVisible();
        Fields.choose(desk, "How often", "every week or every few weeks");
        desk.getByLabel("Every so many weeks").fill("2");
        Fields.choose(desk, "Weekday", "Thursday");
        assertThat(desk.getByText("Due every second week on Thursday")).isVisible();
        assertThat(desk.locator("aside li").first()).containsText("due Thu");
        desk.getByLabel("Opens so many days before").fill("999");
        assertThat(desk.getByText("From 1 to 180 days")).isVisible();
        desk.getByLabel("Opens so many days before").fill("7");
        Browser.assertAccessible(desk);
        button(desk, "Save").click();
        assertThat(desk.getByText("Due every second week on Thursday, opens by itself")).isVisible();
    }
}
