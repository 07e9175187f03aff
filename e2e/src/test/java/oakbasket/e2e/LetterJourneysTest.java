package oakbasket.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.assertions.LocatorAssertions;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.FilePayload;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** Letters in a real browser: planned, sent, stopped, read, and told on every screen that speaks of a person. */
class LetterJourneysTest extends Journey {

    @Test
    void aRoundInvitesByLetterAndWhoeverHasSentEverythingIsLeftInPeace() {
        Page desk = desk("/rounds/new");
        desk.getByLabel("Title", new Page.GetByLabelOptions().setExact(true)).fill("Weir keys");
        document(desk, 1).fill("Key receipt");
        desk.getByLabel("Type or paste people").fill("Rhona Weir <rhona@example.org>");
        desk.getByText("Add these people").click();
        Fields.date(desk, "Deadline date", LocalDate.now(java.time.ZoneId.of("Europe/London")).plusDays(30));
        button(desk, "Change the reminders").click();
        button(desk, "Suggest a plan").click();
        Fields.type(desk.locator("#step-0-at"), "23:00");
        button(desk, "Change how they get in").click();
        desk.getByText("By a letter, a minute after the round opens").click();
        assertThat(desk.getByText("There is no mail server")).isVisible();
        button(desk, "Open the round").click();
        assertThat(desk.locator("#step-0-error")).hasText("Nobody is written to between 20:00 and 07:00");
        Fields.type(desk.locator("#step-0-at"), "8.30");
        button(desk, "Remove reminder 2").click();
        desk.getByRole(AriaRole.TAB, new Page.GetByRoleOptions().setName("Letter")).click();
        assertThat(desk.locator(".preview")).containsText("- Key receipt");
        Browser.assertAccessible(desk);
        Browser.assertFits(desk);
        open(desk);
        assertThat(desk.locator("main tbody")).containsText("not asked yet");
        assertThat(desk.locator("main tbody")).not().containsText("not asked yet", new LocatorAssertions.ContainsTextOptions().setTimeout(15_000));
        assertThat(desk.getByText("1 letter sent")).isVisible();
        assertThat(desk.locator("p.letters")).containsText("1 reminder");
        Browser.assertAccessible(desk);
        desk.getByText("1 letter sent").click();
        desk.locator("button.name").click();
        assertThat(desk.locator(".sheet h2")).hasText("Weir keys: papers we need from you");
        Browser.assertAccessible(desk);
        Matcher link = Pattern.compile("https?://\\S+/b/\\S+").matcher(desk.locator(".sheet .body").innerText());
        assertThat(link.find()).isTrue();
        Page sender = browser.page(390, 844);
        sender.navigate(link.group());
        sender.getByLabel("Choose files for Key receipt").setInputFiles(new FilePayload("key.pdf", "application/pdf", "%PDF-1.4\n%%EOF".getBytes(StandardCharsets.US_ASCII)));
        send(sender);
        sender.locator(".code").waitFor();
        desk.getByText("On the board: Weir keys").click();
        assertThat(desk.locator(".panel")).containsText("No reminder will go: everything has come");
        assertThat(desk.locator(".panel .letters")).containsText("Invitation");
    }

    @Test
    void lettersByHandAreCountedBeforeTheyGoAndStoppedByOneClick() {
        Page desk = desk("/rounds/" + api.round("Landowner"));
        desk.getByLabel("Choose Verity Lock").check();
        desk.getByLabel("Choose Duncan Marsh").check();
        desk.getByLabel("Choose Ada Brook").check();
        button(desk, "Write to them…").click();
        Locator what = desk.getByRole(AriaRole.GROUP, new Page.GetByRoleOptions().setName("What will go"));
        assertThat(what).containsText("1 invitation, 1 reminder");
        assertThat(what).containsText("1 person gets none: everything has come");
        Browser.assertAccessible(desk);
        button(desk, "Send 2 letters").click();
        desk.locator(".said").getByText("Undo").click();
        assertThat(desk.getByText("2 letters stopped")).isVisible();
        desk.navigate(app.url() + "/post?state=STOPPED");
        assertThat(desk.locator("main tbody tr")).hasCount(2);
        assertThat(desk.locator("main tbody")).containsText("stopped by hand");
        Browser.assertFits(desk);
        desk.locator("main tbody tr", new Page.LocatorOptions().setHasText("Duncan Marsh")).locator("button").press("Enter");
        button(desk, "Send it after all").click();
        assertThat(desk.locator(".sheet")).containsText("sent", new LocatorAssertions.ContainsTextOptions().setTimeout(15_000));
        assertThat(desk.locator("main tbody tr")).hasCount(1);
        desk.locator(".sheet a").first().click();
        assertThat(desk.locator(".rounds .letters")).containsText("Reminder");
        assertThat(api.get("/api/rounds/" + api.round("Landowner") + "/board").path("rows").valueStream().filter(row -> row.path("name").asString().equals("Verity Lock")).findFirst().orElseThrow()
                .path("progress").asString()).as("nobody wrote to her").isEqualTo("NOT_ASKED");
    }

    @Test
    void aLetterThatWasNotDeliveredIsToldWhereTheDayBegins() {
        Page desk = desk("/");
        desk.getByText("1 letter was not delivered").click();
        assertThat(desk.locator("main tbody tr")).hasCount(1);
        assertThat(desk.locator("main tbody")).containsText("There is no such mailbox here");
        desk.locator("button.name").click();
        desk.getByText("On the board: Landowner").click();
        assertThat(desk.locator(".panel")).containsText("the last letter was refused: look at the address");
    }

    @Test
    void theOfficeWritesItsOwnWords() {
        Page desk = desk("/setup");
        Locator form = desk.locator(".folded-part", new Page.LocatorOptions().setHasText("Overdue notice"));
        form.getByText("Overdue notice").click();
        form.getByLabel("Text").fill("Hello {nmae}");
        button(desk, "Keep this text").click();
        assertThat(form.getByText("There is no field {nmae}.")).isVisible();
        form.getByLabel("Text").fill("Hello {name}\n\n{papers}");
        button(desk, "Look at it").click();
        assertThat(form.locator("article")).containsText("Hello Ada Brook");
        Browser.assertAccessible(desk);
        button(desk, "Keep this text").click();
        assertThat(desk.getByText("Text kept")).isVisible();
        button(desk, "Go back to the text that came with Oak Basket").click();
        assertThat(form.getByLabel("Text")).hasValue(Pattern.compile("The deadline has passed"));
        desk.locator(".said").getByText("Undo").click();
        assertThat(form.getByLabel("Text")).hasValue("Hello {name}\n\n{papers}");
        button(desk, "Send a letter to myself").click();
        assertThat(desk.getByText("A letter to you is on its way")).isVisible();
        Browser.assertFits(desk);
    }
}
