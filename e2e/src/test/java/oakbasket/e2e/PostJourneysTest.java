package oakbasket.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.time.LocalDate;
import java.util.regex.Pattern;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** The whole post in a real browser: what will go, letters that come back, papers that come by mail, and the bell; the pretend post office stands for everybody else's mail. */
class PostJourneysTest extends Journey {

    private static PackagedApp office;
    private static Api there;

    @BeforeAll
    static void start() {
        office = new PackagedApp(PackagedApp.freshFolder(), "--oakbasket.demo=true", "--oakbasket.post-office=true", "--oakbasket.clock=2026-05-12T09:30:00Z", "--oakbasket.clock-ticks=true",
                "--oakbasket.mail-from=office@fennbrook.example.org", "--oakbasket.collecting-address=papers@fennbrook.example.org", "--oakbasket.post-every=PT0.3S", "--oakbasket.inward-every=PT1S");
        there = new Api(office.url());
    }

    @AfterAll
    static void stop() {
        office.close();
    }

    private static Page deskThere(String path) {
        return browser.desk(office, path);
    }

    @Test
    void aPaperSentByMailIsFiledTheBellRingsAndTheAnswerIsRead() {
        Page desk = deskThere("/post-office");
        button(desk, "A day on").click();
        Locator letter = desk.locator("main tbody tr").filter(new Locator.FilterOptions().setHasText("lena.roach")).last();
        letter.locator("button").click();
        assertThat(desk.locator(".letter article")).containsText("Dear Lena Roach");
        desk.getByRole(AriaRole.TAB, new Page.GetByRoleOptions().setName("As a page")).click();
        assertThat(desk.frameLocator(".letter iframe").locator("body")).containsText("Dear Lena Roach");
        Browser.assertAccessible(desk);
        Browser.assertFits(desk);
        assertThat(desk.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("What came: nothing since you looked"))).isVisible();
        desk.locator("#answer").fill("Here is my sheet.");
        desk.locator(".letter input[type=file]").setInputFiles(file("survey.csv", "group,count\nMayflies,3\n"));
        button(desk, "Send the answer").click();
        assertThat(desk.locator(".said").last()).containsText("The answer came in");
        Locator bell = desk.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(Pattern.compile("What came: \\d")));
        bell.click();
        assertThat(desk.locator(".rings")).containsText("Lena Roach");
        Browser.assertAccessible(desk);
        desk.locator(".rings").getByText("I have seen it").click();
        assertThat(desk.locator(".rings")).containsText("Nothing has come since you last looked");
        desk.keyboard().press("Escape");
        desk.navigate(office.url() + "/post/inward");
        desk.locator("main tbody button").first().click();
        assertThat(desk.locator(".sheet")).containsText("confirmed: it comes from the address of this person");
        assertThat(desk.locator(".sheet")).containsText("survey.csv filed for Survey sheet");
        Browser.assertAccessible(desk);
        Browser.assertFits(desk);
        button(desk, "I have read it").click();
        assertThat(button(desk, "Keep it as not read")).isVisible();
        desk.locator(".sheet").getByText("On the board: River-fly survey sheets").click();
        assertThat(desk.locator(".panel")).containsText("confirmed");
        assertThat(desk.locator(".panel")).containsText("By mail");
        desk.navigate(office.url() + "/post-office");
        desk.locator("main tbody button").first().click();
        assertThat(desk.locator(".letter article")).containsText("survey.csv: received for “Survey sheet”");
    }

    @Test
    void aLetterThatComesBackIsSeenEverywhereAndMendedFromWhereItIs() {
        long round = there.round("Placement");
        JsonNode row = there.row(round, "Ben Thistle");
        there.send("PUT", "/api/post-office/moods", ("{\"address\":\"" + row.path("email").asString() + "\",\"mood\":\"BOUNCE\"}").getBytes(), "Content-Type", "application/json");
        there.post("/api/rounds/" + round + "/letters", "{\"baskets\":[" + row.path("id") + "],\"allTheSame\":true}");
        there.post("/api/post-office/clock", "{\"hours\":1}");
        Page desk = deskThere("/rounds/" + round);
        Locator mark = desk.locator("main tbody tr").filter(new Locator.FilterOptions().setHasText("Ben Thistle")).getByText("letter did not arrive");
        mark.click();
        assertThat(desk.locator(".sheet")).containsText("came back");
        assertThat(desk.locator(".sheet")).containsText("550 5.1.1 User unknown");
        Browser.assertAccessible(desk);
        assertThat(desk.locator(".sheet")).containsText("There is no such mailbox");
        desk.locator(".sheet a", new Page.LocatorOptions().setHasText("Ben Thistle")).click();
        assertThat(desk.locator(".lost")).containsText("did not arrive");
        Browser.assertAccessible(desk);
        desk.goBack();
        desk.getByLabel("Address", new Page.GetByLabelOptions().setExact(true)).fill("no address");
        button(desk, "Keep it and send again").click();
        assertThat(desk.locator("#mend-address-error")).not().isEmpty();
        desk.getByLabel("Address", new Page.GetByLabelOptions().setExact(true)).fill("ben.thistle.new@example.org");
        button(desk, "Keep it and send again").click();
        assertThat(desk.locator(".sheet")).containsText("taken by the mail server");
        desk.navigate(office.url() + "/post-office");
        assertThat(desk.locator("main tbody tr").first()).containsText("ben.thistle.new@example.org");
        desk.navigate(office.url() + "/rounds/" + round);
        assertThat(desk.locator("main tbody")).containsText("Ben Thistle");
        assertThat(desk.locator("main tbody tr").filter(new Locator.FilterOptions().setHasText("Ben Thistle")).getByText("letter did not arrive")).hasCount(0);
    }

    @Test
    void whatWillGoIsSeenAheadSkippedForOneAndTakenBack() {
        Page desk = deskThere("/post/goes");
        Browser.assertAccessible(desk);
        Browser.assertFits(desk);
        Locator letter = desk.locator("button.letter").filter(new Locator.FilterOptions().setHasText("Landowner consent packs")).first();
        assertThat(letter).containsText("left out");
        letter.click();
        Locator sheet = desk.locator(".sheet");
        assertThat(sheet).containsText("Who does not");
        assertThat(sheet).containsText("complete since");
        Browser.assertAccessible(desk);
        String first = sheet.locator("li a").first().innerText();
        sheet.getByLabel("Choose " + first).check();
        button(desk, "Skip").click();
        assertThat(sheet.locator("li").filter(new Locator.FilterOptions().setHasText(first))).containsText("skipped by hand");
        desk.locator(".said").getByText("Undo").last().click();
        assertThat(sheet.locator("li").filter(new Locator.FilterOptions().setHasText(first))).not().containsText("skipped by hand");
        button(desk, "Move…").click();
        Fields.type(desk.locator("#move-time"), "11:00");
        button(desk, "Move").click();
        assertThat(desk.locator("button.letter").filter(new Locator.FilterOptions().setHasText("moved here by hand")).first()).isVisible();
        desk.locator(".said").getByText("Undo").last().click();
        assertThat(desk.locator("button.letter").filter(new Locator.FilterOptions().setHasText("moved here by hand"))).hasCount(0);
    }

    @Test
    void wordsOfLettersAreFilledInForARealPersonInEachLanguageAndFieldsAreOffered() {
        Page desk = deskThere("/setup");
        Locator languages = desk.locator("#texts-language");
        languages.scrollIntoViewIfNeeded();
        Fields.choose(desk, "Language", "Arabic");
        desk.getByLabel("Fill in for").fill("Lena");
        desk.locator(".found").getByText("Lena Roach").first().click();
        desk.getByText("ما زال ينقص: {round}").click();
        Locator body = desk.locator("#body-REMINDER");
        body.press("End");
        body.press("Control+End");
        body.pressSequentially(" {off");
        desk.getByText("{office} the office").click();
        assertThat(body).hasValue(Pattern.compile("[\\s\\S]*\\{office}$"));
        desk.locator("form").filter(new Locator.FilterOptions().setHas(body)).getByText("Look at it").click();
        Locator look = desk.locator("form").filter(new Locator.FilterOptions().setHas(body)).locator("article");
        assertThat(look).containsText("As Lena Roach would read it now");
        assertThat(look.locator(".body")).containsText("مرحبًا Lena Roach");
        assertThat(look.locator(".body")).hasAttribute("dir", "rtl");
        Browser.assertAccessible(desk);
        Browser.assertFits(desk);
        button(desk, "Look whether the servers can be reached").click();
        assertThat(desk.locator(".checked")).containsText("Mailbox: can be reached, and lets us in");
    }

    @Test
    void aPlanIsKeptRunDryAndUsedInAnotherRound() {
        Page desk = deskThere("/rounds/new");
        desk.getByLabel("Title", new Page.GetByLabelOptions().setExact(true)).fill("Bank survey");
        document(desk, 1).fill("Sheet");
        desk.getByLabel("Type or paste people").fill("Rhona Weir <rhona@example.org>, Olm Weir <olm@example.org>");
        desk.getByText("Add these people").click();
        Fields.date(desk, "Deadline date", LocalDate.of(2026, 6, 30));
        button(desk, "Change the reminders").click();
        desk.getByText("last call", new Page.GetByTextOptions().setExact(true)).last().click();
        button(desk, "Keep this plan for other rounds").click();
        desk.getByLabel("Name of the plan").fill("With a last call");
        button(desk, "Keep it").click();
        assertThat(desk.locator(".said").last()).containsText("The plan is kept as “With a last call”");
        Browser.assertAccessible(desk);
        button(desk, "Open the round").click();
        Locator run = desk.locator(".dry-run");
        assertThat(run).containsText("Last call");
        assertThat(run).containsText("letters in all");
        Browser.assertAccessible(desk);
        button(desk, "Open it now").click();
        desk.locator("main tbody").waitFor();
        desk.navigate(office.url() + "/rounds/new");
        button(desk, "Change the reminders").click();
        button(desk, "Use a kept plan").click();
        desk.getByRole(AriaRole.MENUITEM).getByText("With a last call").click();
        assertThat(desk.locator(".plan .step input[type=checkbox]:checked")).hasCount(1);
    }
}
