package oakbasket.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Download;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.assertions.LocatorAssertions;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.FilePayload;
import java.io.IOException;
import java.nio.file.Files;
import org.junit.jupiter.api.Test;

/** One place for one person outside, seen from both sides at once: what one side does the other sees without loading anything anew. */
class ExchangeJourneysTest extends Journey {

    /** The page outside asks every five seconds. */
    private static final int SOON_MILLISECONDS = 15_000;

    private static LocatorAssertions.ContainsTextOptions soon() {
        return new LocatorAssertions.ContainsTextOptions().setTimeout(SOON_MILLISECONDS);
    }

    private static Locator named(Page page, AriaRole role, String name) {
        return page.getByRole(role, new Page.GetByRoleOptions().setName(name));
    }

    @Test
    void twoSidesWorkOnPapersInOnePlaceAndEachSeesTheOther() throws IOException {
        Page desk = desk("/exchanges/new");
        Browser.assertAccessible(desk);
        button(desk, "Open the exchange").click();
        assertThat(desk.locator("#exchange-title-error")).hasText("Give it a title; it is what its person sees first");
        desk.locator("#exchange-title").fill("The lease of Heron Field");
        desk.locator("#exchange-message").fill("Until both of us have signed.");
        desk.locator("#exchange-name").fill("Fay Heron");
        desk.locator("#exchange-email").fill("fay.heron@example.org");
        desk.locator("#exchange-item").fill("Your papers about the lease");
        desk.getByText("Has to accept the invitation first").click();
        button(desk, "Open the exchange").click();
        assertThat(desk.locator(".page > header")).containsText("invited, not answered yet");
        desk.locator(".put input[type=file]").setInputFiles(new FilePayload[] {pdf("lease, draft.pdf", "lease"), file("what to look at.txt", "the second page")});
        Locator lying = desk.getByRole(AriaRole.REGION, new Page.GetByRoleOptions().setName("For Fay Heron"));
        assertThat(lying).containsText("not taken yet", soon());
        assertThat(lying.locator("li")).hasCount(2);
        Browser.assertAccessible(desk);
        Browser.assertFits(desk);
        button(desk, "Copy link").click();
        assertThat(desk.getByText("Copied.")).isVisible();
        String link = (String) desk.evaluate("navigator.clipboard.readText()");

        // The other side: an invitation first, and nothing of what lies there.
        Page phone = browser.page(390, 844);
        phone.navigate(link);
        assertThat(phone.locator("main")).containsText("invites you");
        assertThat(phone.locator("main")).not().containsText("lease, draft");
        Browser.assertAccessible(phone);
        Browser.assertFits(phone);
        button(phone, "Accept").click();
        Locator forMe = phone.getByRole(AriaRole.REGION, new Page.GetByRoleOptions().setName("From the office, for you"));
        assertThat(forMe).containsText("lease, draft.pdf");
        assertThat(desk.locator(".page > header")).not().containsText("invited, not answered yet");
        named(phone, AriaRole.BUTTON, "Look: what to look at.txt").click();
        phone.locator("img[alt='what to look at.txt']").waitFor();
        Download download = phone.waitForDownload(() -> named(phone, AriaRole.LINK, "Take away: what to look at.txt").click());
        assertThat(Files.readString(download.path())).isEqualTo("the second page");
        assertThat(lying).containsText("taken 1 time", soon());
        assertThat(forMe).containsText("taken away", soon());

        // They put something in; the desk sees it, and sends it back with a corrected one.
        filesFor(phone, "Your papers about the lease").setInputFiles(new FilePayload[] {pdf("signed wrongly.pdf", "wrong")});
        send(phone);
        phone.locator(".receipt, h1:has-text('received')").first().waitFor();
        Locator came = desk.getByRole(AriaRole.REGION, new Page.GetByRoleOptions().setName("From Fay Heron"));
        assertThat(came).containsText("signed wrongly.pdf", soon());
        phone.reload();
        assertThat(forMe).isVisible();
        named(desk, AriaRole.BUTTON, "Return signed wrongly.pdf").click();
        came.getByLabel("Why it is returned").fill("The signature stands on the wrong page.");
        came.locator("form input[type=file]").setInputFiles(new FilePayload[] {pdf("sign here.pdf", "right")});
        Browser.assertAccessible(desk);
        button(desk, "Return it").click();
        assertThat(came).containsText("returned", soon());
        assertThat(came).containsText("Answered by sign here.pdf", soon());
        assertThat(forMe).containsText("Answers your “signed wrongly.pdf”", soon());
        assertThat(phone.locator("main")).containsText("The signature stands on the wrong page.", soon());
        Browser.assertAccessible(phone);
        Browser.assertFits(phone);

        // What is taken back goes from the open page, and comes again.
        named(desk, AriaRole.BUTTON, "Take back lease, draft.pdf").click();
        assertThat(forMe).not().containsText("lease, draft.pdf", soon());
        desk.locator(".said button").click();
        assertThat(forMe).containsText("lease, draft.pdf", soon());

        // The desk takes rights back: the page follows.
        button(desk, "Change").click();
        desk.getByText("Put in: send files").click();
        desk.getByText("Take away: get those").click();
        button(desk, "Save").click();
        assertThat(forMe).not().containsText("Take away", soon());
        assertThat(phone.locator(".card")).hasCount(0);
        assertThat(forMe.getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("Look: lease, draft.pdf"))).isVisible();
        phone.getByLabel("Language").selectOption("ar");
        assertThat(phone.locator("html")).hasAttribute("dir", "rtl");
        assertThat(phone.locator("main")).containsText("من المكتب، لك");
        Browser.assertAccessible(phone);
        Browser.assertFits(phone);
    }

    @Test
    void fromABasketOfARoundOneComesToTheSamePlace() {
        long round = openRound("Consent with answers", "");
        api.personalLink(round, "Tamsin Withy");
        Page desk = desk("/rounds/" + round + "?basket=" + api.row(round, "Tamsin Withy").path("id").asLong());
        Locator panel = desk.locator(".panel");
        panel.getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("More").setExact(false)).last().click();
        desk.getByText("Papers in both directions").click();
        assertThat(desk.locator("h1")).hasText("Consent with answers");
        assertThat(desk.locator(".page > header")).containsText("Tamsin Withy");
        desk.locator(".put input[type=file]").setInputFiles(new FilePayload[] {file("read me.txt", "first")});
        Page phone = browser.page(390, 844);
        phone.navigate(api.personalLink(round, "Tamsin Withy"));
        assertThat(phone.locator(".theirs")).containsText("read me.txt", soon());
        assertThat(phone.locator(".card").first()).isVisible();
        assertThat(desk.locator("body").textContent()).doesNotContain("undefined");
    }
}
