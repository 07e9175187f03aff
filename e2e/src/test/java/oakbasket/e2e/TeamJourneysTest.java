package oakbasket.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.nio.ByteBuffer;
import java.security.GeneralSecurityException;
import java.time.Instant;
import java.util.regex.Pattern;
import javax.crypto.Mac;
import javax.crypto.spec.SecretKeySpec;
import org.junit.jupiter.api.Test;

/** Several people of one office: from the invitation to the day somebody leaves, each in a browser of their own. */
class TeamJourneysTest extends Journey {

    private static final String OWN = "heron over the reeds";

    /** Signs in at the door, in a browser that knows nobody. */
    private static Page signIn(String email, String password) {
        Page page = browser.page(1280, 800);
        page.navigate(app.url() + "/sign-in");
        page.getByLabel("E-mail").fill(email);
        page.getByLabel("Password").fill(password);
        button(page, "Sign in").click();
        return page;
    }

    /** Has somebody invited at the desk, and makes their account with the link that the desk shows. */
    private static Page joined(Page desk, String name, String email, String role) {
        desk.locator("#invite-name").fill(name);
        desk.locator("#invite-email").fill(email);
        if (!role.equals("Coordinator")) {
            Fields.choose(desk, desk.locator("#invite-role"), role);
        }
        button(desk, "Send the invitation").click();
        String link = desk.locator(".made").filter(new Locator.FilterOptions().setHasText(name)).locator(".mono").textContent();
        Page guest = browser.page(1280, 800);
        guest.navigate(link.replaceFirst("^https?://[^/]+", app.url()));
        assertThat(guest.getByText("asks you to work on its rounds as " + role.toLowerCase())).isVisible();
        Browser.assertAccessible(guest);
        guest.getByLabel("Choose a password").fill("too short");
        button(guest, "Make the account").click();
        assertThat(guest.locator("#join-password-error")).containsText("at least 12");
        guest.getByLabel("Choose a password").fill(OWN);
        button(guest, "Make the account").click();
        guest.waitForURL("**/sign-in");
        guest.getByLabel("E-mail").fill(email);
        guest.getByLabel("Password").fill(OWN);
        button(guest, "Sign in").click();
        guest.locator(".bar").waitFor();
        return guest;
    }

    private static Locator row(Page desk, String name) {
        return desk.locator("table").first().locator("tbody tr").filter(new Locator.FilterOptions().setHasText(name));
    }

    @Test
    void somebodyIsInvitedReadsAndChangesNothing() {
        long round = openRound("Read by others", "");
        Page desk = desk("/team");
        Browser.assertAccessible(desk);
        Browser.assertFits(desk);
        Page reader = joined(desk, "Mo Reader", "mo.reader@example.org", "Reader");
        assertThat(row(desk, "Mo Reader")).isVisible();
        assertThat(reader.locator("nav a")).hasText(new String[] {"Today", "Rounds", "Contacts", "Folders", "Parcels", "Setup"});
        reader.navigate(app.url() + "/rounds");
        assertThat(reader.getByText("Read by others")).isVisible();
        assertThat(reader.getByText("Compose a round")).hasCount(0);
        reader.navigate(app.url() + "/rounds/" + round);
        assertThat(reader.getByText("Tamsin Withy")).isVisible();
        assertThat(button(reader, "Ask more people")).hasCount(0);
        reader.getByText("Tamsin Withy").click();
        assertThat(reader.locator(".panel h2")).containsText("Tamsin Withy");
        assertThat(reader.locator(".panel").getByText("Excuse")).hasCount(0);
        Browser.assertAccessible(reader);
        reader.navigate(app.url() + "/contacts/" + api.get("/api/rounds/" + round + "/board").path("rows").get(0).path("contactId").asLong());
        assertThat(reader.locator("#contact-name")).hasValue("Tamsin Withy");
        assertThat(reader.locator("#contact-name")).isDisabled();
        assertThat(button(reader, "Save")).hasCount(0);
        reader.navigate(app.url() + "/setup");
        assertThat(reader.locator("article input").first()).isDisabled();
        assertThat(reader.locator("article").first().getByText("Save")).hasCount(0);
        desk.navigate(app.url() + "/audit");
        desk.getByLabel("Find a name, a thing or an address").fill("Mo Reader");
        assertThat(row(desk, "saw a basket").filter(new Locator.FilterOptions().setHasText("Mo Reader")).first()).containsText("Tamsin Withy, Read by others");
        button(desk, "Check the trail").click();
        assertThat(desk.getByText(Pattern.compile("entries, each as it was written"))).isVisible();
        Browser.assertAccessible(desk);
        Browser.assertFits(desk);
    }

    @Test
    void aRoundIsKeptToSomeAndHandedOverWhenItsOwnerLeaves() {
        Page desk = desk("/team");
        Page owner = joined(desk, "Wyn Owner", "wyn.owner@example.org", "Coordinator");
        Page colleague = joined(desk, "Sal Colleague", "sal.colleague@example.org", "Coordinator");
        owner.navigate(app.url() + "/rounds/new");
        owner.getByLabel("Title", new Page.GetByLabelOptions().setExact(true)).fill("Kept among few");
        document(owner, 1).fill("Agreement");
        owner.getByLabel("Type or paste people, one on a line").fill("Ann Few <ann.few@example.org>");
        button(owner, "Add these people").click();
        owner.waitForURL("**/sheet");
        long round = Long.parseLong(owner.url().replaceAll(".*/rounds/(\\d+)/sheet.*", "$1"));
        colleague.navigate(app.url() + "/rounds");
        assertThat(colleague.getByText("Kept among few")).isVisible();
        assertThat(Api.json(api.send("PUT", "/api/sharing/" + round, ("{\"owner\":" + api.get("/api/sharing/" + round).path("owner") + ",\"wholeOffice\":false,\"with\":[]}").getBytes(), "Content-Type", "application/json")).path("wholeOffice").asBoolean()).isFalse();
        assertThat(colleague.getByText("Kept among few")).hasCount(0);
        colleague.navigate(app.url() + "/rounds/" + round + "/sheet");
        assertThat(colleague.getByText("No such round").or(colleague.getByText("No such draft")).first()).isVisible();
        assertThat(owner.getByLabel("Title", new Page.GetByLabelOptions().setExact(true))).hasValue("Kept among few");
        desk.navigate(app.url() + "/team");
        row(desk, "Wyn Owner").getByRole(AriaRole.BUTTON).click();
        desk.getByRole(AriaRole.MENUITEM).getByText("Let leave…").locator("visible=true").click();
        Browser.assertAccessible(desk);
        button(desk, "Let leave").click();
        assertThat(desk.locator("#leave-to-error")).containsText("Say who gets");
        Fields.choose(desk, desk.locator("#leave-to"), "Sal Colleague");
        button(desk, "Let leave").click();
        assertThat(row(desk, "Wyn Owner")).containsText("left on");
        colleague.navigate(app.url() + "/rounds");
        assertThat(colleague.getByText("Kept among few")).isVisible();
        owner.navigate(app.url() + "/rounds");
        owner.waitForURL("**/sign-in**");
    }

    @Test
    void aCodeFromAPhoneIsAskedForBesidesThePassword() throws GeneralSecurityException {
        Page desk = desk("/team");
        Page own = joined(desk, "Lou Careful", "lou.careful@example.org", "Coordinator");
        own.navigate(app.url() + "/setup");
        Locator card = own.locator("section").filter(new Locator.FilterOptions().setHasText("A code besides the password"));
        card.getByRole(AriaRole.BUTTON).click();
        String secret = card.locator(".scan .mono").textContent();
        card.getByLabel("The six digits it shows now").fill("123");
        card.getByLabel("Your password").fill(OWN);
        card.getByText("Ask for a code from now on").click();
        assertThat(card.locator("#factor-code-error")).containsText("not the code");
        card.getByLabel("The six digits it shows now").fill(code(secret));
        card.getByLabel("Your password").fill(OWN);
        card.getByText("Ask for a code from now on").click();
        assertThat(card.locator(".spare li")).hasCount(8);
        String spare = card.locator(".spare li").first().textContent();
        Browser.assertAccessible(own);
        Page again = signIn("lou.careful@example.org", OWN);
        assertThat(again.getByLabel("Code from your device")).isFocused();
        Browser.assertAccessible(again);
        again.keyboard().type("000000");
        again.keyboard().press("Enter");
        assertThat(again.getByText("This code is not right")).isVisible();
        again.getByLabel("Code from your device").fill(spare);
        again.keyboard().press("Enter");
        again.locator(".bar").waitFor();
        own.reload();
        Locator sessions = own.locator("section").filter(new Locator.FilterOptions().setHasText("Where you are signed in"));
        sessions.getByText("Sign out there").click();
        again.navigate(app.url() + "/rounds");
        again.waitForURL("**/sign-in**");
    }

    @Test
    void aParcelIsKeptToSomeAndFoundAmongOnesOwn() {
        Page desk = desk("/team");
        Page owner = joined(desk, "Wren Parcel", "wren.parcel@example.org", "Coordinator");
        Page colleague = joined(desk, "Teal Parcel", "teal.parcel@example.org", "Coordinator");
        owner.navigate(app.url() + "/parcels");
        button(owner, "New parcel").click();
        owner.locator("#parcel-title").fill("Kept by Wren");
        assertThat(owner.getByText("Saved", new Page.GetByTextOptions().setExact(true))).isVisible();
        colleague.navigate(app.url() + "/parcels");
        assertThat(row(colleague, "Kept by Wren")).containsText("Wren Parcel");
        button(colleague, "Mine").click();
        assertThat(colleague.getByText("No parcel fits.")).isVisible();
        button(colleague, "Office").click();
        assertThat(row(colleague, "Kept by Wren")).isVisible();
        button(owner, "Share or hand over…").click();
        owner.getByText("Only the owner, administrators, and:").click();
        Browser.assertAccessible(owner);
        button(owner, "Save").click();
        assertThat(owner.getByText("seen by some")).isVisible();
        assertThat(row(colleague, "Kept by Wren")).hasCount(0);
        owner.navigate(app.url() + "/parcels?whose=mine");
        assertThat(row(owner, "Kept by Wren")).containsText("seen by some");
        Browser.assertAccessible(owner);
        Browser.assertFits(owner);
    }

    @Test
    void aForgottenPasswordIsAskedForWithoutSayingWhetherThereIsAnAccount() {
        Page page = browser.page(1280, 800);
        page.navigate(app.url() + "/sign-in");
        page.getByText("Forgotten your password?").click();
        page.getByLabel("E-mail").fill("nobody.at.all@example.org");
        Browser.assertAccessible(page);
        button(page, "Send the link").click();
        assertThat(page.getByText("If nobody.at.all@example.org has an account")).isVisible();
        page.navigate(app.url() + "/new-password#notARealOne");
        page.getByLabel("Choose a password").fill(OWN);
        button(page, "Set it").click();
        assertThat(page.getByText("This link does not work any more")).isVisible();
    }

    /** Two coordinators in two browsers: each sees where the other is, and the second change of the same thing is told and overwrites nothing. */
    @Test
    void twoAtOneRoundSeeEachOtherAndOverwriteNothing() {
        long round = openRound("Worked on by two", "");
        Page first = desk("/team");
        Page second = joined(first, "Gil Second", "gil.second@example.org", "Coordinator");
        first.navigate(app.url() + "/rounds/" + round);
        second.navigate(app.url() + "/rounds/" + round);
        assertThat(first.getByText("Gil Second is here too")).isVisible();
        assertThat(second.getByText("Robin Fenn is here too")).isVisible();
        second.getByText("Tamsin Withy").click();
        assertThat(first.getByText("Gil Second is here too, at Tamsin Withy")).isVisible();
        Browser.assertAccessible(first);
        var row = api.get("/api/rounds/" + round + "/board").path("rows").get(0);
        String stale = "{\"kind\":\"NOTE\",\"text\":\"%s\",\"baskets\":[{\"id\":" + row.path("id") + ",\"version\":" + row.path("version") + "}]}";
        assertThat(api.post("/api/rounds/" + round + "/acts", stale.formatted("from the first")).statusCode()).isEqualTo(200);
        assertThat(second.locator(".panel .note")).hasText("from the first");
        var told = api.post("/api/rounds/" + round + "/acts", stale.formatted("from the second"));
        assertThat(told.statusCode()).isEqualTo(409);
        assertThat(second.locator(".panel .note")).hasText("from the first");
        second.locator("nav").getByText("Rounds").click();
        assertThat(first.getByText("Gil Second is here too")).hasCount(0);
    }

    /** What only one of two changed stays, of what both changed both versions are shown, and nobody overwrites anybody unseen: on a contact, a parcel, the rules of filing. */
    @Test
    void theSecondChangeOfTheSameThingIsToldWithBothVersions() {
        Page first = desk("/contacts");
        first.getByText("Add a contact").click();
        first.locator("#contact-name").fill("Tess Twice");
        first.locator("#contact-email").fill("tess.twice@example.org");
        button(first, "Save").click();
        first.waitForURL(Pattern.compile(".*/contacts/\\d+"));
        Page second = browser.desk(app, first.url().substring(app.url().length()));
        assertThat(second.locator("#contact-name")).hasValue("Tess Twice");
        first.locator("#contact-notes").fill("rings before noon");
        second.locator("#contact-notes").fill("prefers letters");
        second.locator("#contact-organisation").fill("Twice & Once");
        button(first, "Save").click();
        assertThat(said(first)).containsText("Saved");
        // It appears in the other window by itself, and takes nothing of what is typed there.
        first.locator("#contact-reference").fill("T-2");
        button(first, "Save").click();
        assertThat(second.locator("#contact-reference")).hasValue("T-2");
        assertThat(second.locator("#contact-notes")).hasValue("prefers letters");
        button(second, "Save").click();
        Locator both = second.getByRole(AriaRole.DIALOG);
        assertThat(both).containsText("Two versions");
        assertThat(both.locator(".value")).hasText(new String[] {"prefers letters", "rings before noon"});
        Browser.assertAccessible(second);
        both.getByText("Keep this").first().click();
        assertThat(first.locator("#contact-notes")).hasValue("prefers letters");
        assertThat(first.locator("#contact-organisation")).hasValue("Twice & Once");
        assertThat(second.locator("#contact-reference")).hasValue("T-2");

        first.navigate(app.url() + "/parcels");
        button(first, "New parcel").click();
        first.waitForURL(Pattern.compile(".*/parcels/\\d+"));
        first.locator("#parcel-title").fill("Maps for two");
        assertThat(first.getByText("Saved")).isVisible();
        second.navigate(first.url());
        assertThat(second.locator("#parcel-title")).hasValue("Maps for two");
        second.locator("#parcel-message").fill("from the second");
        assertThat(first.locator("#parcel-message")).hasValue("from the second");
        assertThat(first.locator("#parcel-title")).hasValue("Maps for two");

        String filing = app.url() + "/rounds/" + openRound("Filed by two", "") + "/filing";
        first.navigate(filing);
        second.navigate(filing);
        ruleFor(first, "maps");
        ruleFor(second, "letters");
        button(first, "Keep for new arrivals").click();
        assertThat(said(first)).containsText("The rules are kept");
        button(second, "Keep for new arrivals").click();
        Locator versions = second.getByRole(AriaRole.DIALOG);
        assertThat(versions.locator(".value").first()).containsText("letters");
        assertThat(versions.locator(".value").last()).containsText("maps");
        versions.getByText("Keep this").last().click();
        assertThat(second.locator(".rules")).containsText("maps");
        assertThat(second.locator(".rules")).not().containsText("letters");
    }

    private static void ruleFor(Page page, String name) {
        button(page, "Add a rule").click();
        page.getByLabel("Compared with").first().fill(name);
        page.locator("#rule-1-place-folder").fill(name);
    }

    private static Locator said(Page page) {
        return page.locator(".said").last();
    }

    @Test
    void theOfficesOwnFaceIsTriedKeptAndSeenOutside() {
        long round = openRound("Seen with our own face", "");
        Page desk = desk("/setup/brand");
        try {
            desk.getByLabel("Colour", new Page.GetByLabelOptions().setExact(true)).fill("#ffcc00");
            assertThat(desk.getByText("It cannot be read well")).isVisible();
            button(desk, "Keep it").click();
            assertThat(desk.locator("#brand-colour-error")).containsText("The nearest that can is");
            desk.getByText("Take the nearest that can").click();
            assertThat(desk.getByText("It can be read")).isVisible();
            desk.getByLabel("How you can be reached").fill("1 Mill Lane, 01632 960123");
            assertThat(desk.locator(".face .foot")).containsText("1 Mill Lane");
            for (String part : new String[] {"Pick-up page", "Letter", "Hand-out", "Basket page"}) {
                desk.getByText(part, new Page.GetByTextOptions().setExact(true)).click();
                assertThat(desk.locator(".face")).containsText("1 Mill Lane");
                Browser.assertAccessible(desk);
            }
            Browser.assertFits(desk);
            button(desk, "Keep it").click();
            assertThat(desk.getByText("Everybody outside sees it from now on")).isVisible();
            Page sender = openLink(round);
            assertThat(sender.getByText("1 Mill Lane, 01632 960123")).isVisible();
            assertThat((String) sender.evaluate("getComputedStyle(document.documentElement).getPropertyValue('--leaf')")).matches("#[0-9a-f]{6}").isNotEqualTo("#47682f");
            Browser.assertAccessible(sender);
        } finally {
            api.send("PUT", "/api/brand", ("{\"name\":\"Fennbrook Catchment Partnership\",\"version\":" + api.get("/api/brand").path("version") + "}").getBytes(), "Content-Type", "application/json");
        }
    }

    /** RFC 6238 with SHA-1 and 30 seconds, of a secret in Base32 (RFC 4648). */
    private static String code(String secret) throws GeneralSecurityException {
        String letters = secret.replaceAll("\\s", "");
        ByteBuffer key = ByteBuffer.allocate(letters.length() * 5 / 8);
        int held = 0;
        int bits = 0;
        for (char letter : letters.toCharArray()) {
            held = held << 5 | "ABCDEFGHIJKLMNOPQRSTUVWXYZ234567".indexOf(letter);
            bits += 5;
            if (bits >= 8) {
                key.put((byte) (held >> bits - 8));
                bits -= 8;
            }
        }
        Mac mac = Mac.getInstance("HmacSHA1");
        mac.init(new SecretKeySpec(key.array(), "RAW"));
        byte[] hash = mac.doFinal(ByteBuffer.allocate(8).putLong(Instant.now().getEpochSecond() / 30).array());
        return String.format("%06d", (ByteBuffer.wrap(hash).getInt(hash[hash.length - 1] & 0xf) & 0x7fffffff) % 1_000_000);
    }
}
