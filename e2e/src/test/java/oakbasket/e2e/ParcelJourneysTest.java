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
import java.util.List;
import java.util.regex.Pattern;
import java.util.stream.StreamSupport;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Files handed out: from the desk of a coordinator to the phone of somebody outside, and back to what the coordinator sees of it. */
class ParcelJourneysTest extends Journey {

    /** The script, style and texts of the page for one language, gzipped: as for the page of senders. */
    private static final long MOST_BYTES = 75 * 1024;

    private static JsonNode listed(String title) {
        return StreamSupport.stream(api.get("/api/parcels").path("parcels").spliterator(), false).filter(one -> one.path("title").asString().equals(title)).findFirst().orElseThrow();
    }

    private static Page onPhone(String path) {
        Page phone = browser.page(390, 844);
        phone.navigate(app.url() + path);
        return phone;
    }

    private static byte[] taken(Page page, Runnable click) {
        Download download = page.waitForDownload(click);
        try {
            return Files.readAllBytes(download.path());
        } catch (IOException problem) {
            throw new AssertionError(problem);
        }
    }

    @Test
    void filesGoFromTheDeskToAPhoneAndTheDeskSeesItHappen() {
        Page desk = desk("/parcels");
        Browser.assertAccessible(desk);
        button(desk, "New parcel").click();
        desk.locator("#parcel-title").fill("Signed copies of Withy Meadow");
        desk.locator("#parcel-message").fill("With thanks.");
        desk.locator(".files input[type=file]").setInputFiles(new FilePayload[] {pdf("consent – signed.pdf", "signed"), file("map.txt", "the map of the meadow")});
        assertThat(desk.locator(".files li")).hasCount(2);
        assertThat(desk.locator(".files li.READY")).hasCount(2);
        desk.getByLabel("Or write them down").fill("Ivo Withy <ivo.withy@example.org>\nnobody at all");
        button(desk, "Hand out").click();
        assertThat(desk.locator(".people .error").first()).isVisible();
        desk.getByLabel("Or write them down").fill("Una Withy <una.withy@example.org>");
        Browser.assertAccessible(desk);
        Browser.assertFits(desk);
        button(desk, "Hand out").click();
        Locator ivo = desk.locator("tr").filter(new Locator.FilterOptions().setHasText("Ivo Withy"));
        assertThat(ivo).containsText("0 of 2 files");
        assertThat(ivo).containsText("taken by the mail server", new LocatorAssertions.ContainsTextOptions().setTimeout(20_000));
        Browser.assertAccessible(desk);
        Browser.assertFits(desk);
        ivo.getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("Copy link: Ivo Withy")).click();
        String link = (String) desk.evaluate("navigator.clipboard.readText()");

        Page phone = onPhone(link.substring(app.url().length()));
        assertThat(phone.locator("h1")).hasText("Signed copies of Withy Meadow");
        assertThat(phone.locator("main")).containsText("For Ivo Withy");
        assertThat(phone.locator("main")).not().containsText("Una");
        Browser.assertAccessible(phone);
        Browser.assertFits(phone);
        phone.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Look at map.txt")).click();
        assertThat(phone.locator("pre")).hasText("the map of the meadow");
        Locator take = phone.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName("Take map.txt"));
        assertThat(new String(taken(phone, take::click))).isEqualTo("the map of the meadow");
        assertThat(ivo).containsText("1 of 2 files");
        assertThat(phone.locator("li").filter(new Locator.FilterOptions().setHasText("map.txt"))).containsText("taken");
        byte[] zip = taken(phone, () -> phone.getByText("Take all 2 as a ZIP").click());
        assertThat(new String(zip, 0, 2)).isEqualTo("PK");
        assertThat(ivo).containsText("everything");
        assertThat(phone.locator(".thanks")).hasText("You have taken everything. Thank you.");
        phone.getByLabel("Language").selectOption("ar");
        assertThat(phone.locator("html")).hasAttribute("dir", "rtl");
        assertThat(phone.locator(".thanks")).hasText("لقد استلمت كل شيء. شكرًا لك.");
        Browser.assertAccessible(phone);
        Browser.assertFits(phone);

        button(desk, "Stop").click();
        assertThat(desk.locator("header")).containsText("stopped");
        phone.reload();
        assertThat(phone.locator("h1")).containsText("لا يعمل");
        desk.locator(".said button").click();
        assertThat(desk.locator("header")).containsText("can be taken");
        phone.reload();
        assertThat(phone.locator("h1")).hasText("Signed copies of Withy Meadow");
    }

    @Test
    void whatCameInIsHandedOnWithoutACopyAndAPasscodeGuardsIt() {
        long round = openRound("To be handed on", "");
        Page sender = browser.page(390, 844);
        sender.navigate(api.personalLink(round, "Tamsin Withy"));
        filesFor(sender, "Learning log").setInputFiles(new FilePayload[] {pdf("log.pdf", "handed on")});
        send(sender);
        sender.locator(".receipt, h1:has-text('received')").first().waitFor();
        Page desk = desk("/folders");
        desk.getByLabel("Find below this folder").fill("Tamsin Withy - Learning log");
        desk.locator("tbody tr").filter(new Locator.FilterOptions().setHasText("Tamsin Withy - Learning log")).first().locator(".el-checkbox").click();
        button(desk, "Hand out").click();
        assertThat(desk.locator(".files li").first()).containsText("from the folders, not copied");
        assertThat(desk.locator(".files li.READY")).hasCount(1);
        desk.locator("#parcel-title").fill("Handed on");
        button(desk, "Hand out").click();
        assertThat(desk.locator("footer .error")).containsText("Say who gets it");
        desk.locator(".el-checkbox").filter(new Locator.FilterOptions().setHasText("A link for anybody who holds it")).click();
        desk.getByText("More: begin, passcode").click();
        desk.locator("#parcel-passcode").fill("willow-77");
        button(desk, "Hand out").click();
        assertThat(desk.locator("tbody")).containsText("anybody who holds the link");
        String path = api.get("/api/parcels/" + listed("Handed on").path("id")).path("ways").get(0).path("path").asString();

        Page phone = onPhone(path);
        assertThat(phone.locator("h1")).hasText("A passcode is needed");
        assertThat(phone.locator("body")).not().containsText("Learning log");
        phone.getByLabel("Passcode").fill("wrong-one");
        phone.keyboard().press("Enter");
        assertThat(phone.locator("#passcode-error")).not().isEmpty();
        Browser.assertAccessible(phone);
        phone.getByLabel("Passcode").fill("willow-77");
        phone.keyboard().press("Enter");
        byte[] paper = taken(phone, () -> phone.getByText(Pattern.compile("Take the file")).click());
        assertThat(new String(paper)).contains("handed on");
        assertThat(desk.locator("tbody")).containsText("everything");
    }

    /** A parcel by the interface of the desk, handed out without letters. */
    private static long handedOut(String title, String... people) {
        long id = Api.json(api.post("/api/parcels", "")).path("id").asLong();
        long file = Api.json(api.post("/api/parcels/" + id + "/files", "{\"files\":[{\"name\":\"a note.txt\",\"bytes\":5}]}")).get(0).path("id").asLong();
        assertThat(api.send("POST", "/api/parcels/" + id + "/files/" + file + "/bytes?at=0", "hello".getBytes(), "Content-Type", "application/octet-stream").statusCode()).isEqualTo(200);
        StringBuilder named = new StringBuilder();
        for (String person : people) {
            named.append(named.isEmpty() ? "" : ",").append("{\"name\":\"%s\",\"email\":\"%s@example.org\"}".formatted(person, person.toLowerCase().replace(' ', '.')));
        }
        String sheet = "{\"version\":1,\"title\":\"%s\",\"message\":\"\",\"days\":14,\"keptDays\":30,\"open\":false,\"byLetter\":false,\"whenReady\":true,\"people\":[%s],\"reminders\":[]}".formatted(title, named);
        assertThat(api.send("PUT", "/api/parcels/" + id, sheet.getBytes(), "Content-Type", "application/json").statusCode()).isEqualTo(200);
        for (int n = 0; n < 100 && !api.get("/api/parcels/" + id).path("parcel").path("state").asString().equals("LIVE"); n++) {
            try {
                Thread.sleep(100);
            } catch (InterruptedException stopped) {
                throw new IllegalStateException(stopped);
            }
        }
        return id;
    }

    @Test
    void whatWasHandedOutIsChangedAndEveryStepTakenBack() {
        long id = handedOut("Papers for the Sallows", "Kim Sallow");
        Page desk = desk("/parcels/" + id);
        String path = api.get("/api/parcels/" + id).path("ways").get(0).path("path").asString();
        button(desk, "Add people").click();
        desk.locator("#parcel-more-typed").fill("Lia Sallow <lia.sallow@example.org>\nKim Sallow <kim.sallow@example.org>");
        desk.locator(".box .el-checkbox").click();
        desk.locator(".box button[type=submit]").click();
        assertThat(desk.locator(".said").last()).containsText("One person was added");
        assertThat(desk.locator("tbody tr")).hasCount(2);

        Locator kim = desk.locator("tbody tr").filter(new Locator.FilterOptions().setHasText("Kim Sallow"));
        kim.getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("More").setExact(true)).click();
        kim.getByRole(AriaRole.MENUITEM).getByText("Withdraw").click();
        assertThat(kim).containsText("withdrawn");
        assertThat(onPhone(path).locator("h1")).hasText("This link does not work");
        desk.locator(".said button").last().click();
        assertThat(kim).not().containsText("withdrawn");
        assertThat(onPhone(path).locator("h1")).hasText("Papers for the Sallows");

        kim.getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("More").setExact(true)).click();
        kim.getByRole(AriaRole.MENUITEM).getByText("QR code").click();
        assertThat(kim.locator(".qr img")).isVisible();
        button(desk, "Change").click();
        desk.locator("#parcel-title").fill("Papers for all the Sallows");
        desk.locator(".box").getByRole(AriaRole.SPINBUTTON, new Locator.GetByRoleOptions().setName("Days").setExact(true)).fill("7");
        desk.getByText("More: begin, passcode").click();
        desk.locator("#parcel-most").fill("1");
        Browser.assertAccessible(desk);
        button(desk, "Save").click();
        assertThat(desk.locator("h1")).hasText("Papers for all the Sallows");
        assertThat(desk.locator("aside")).containsText("each file once a person");
        Page phone = onPhone(path);
        assertThat(phone.locator("main")).containsText("Each file can be taken 1 time.");
        assertThat(phone.getByText("Look", new Page.GetByTextOptions().setExact(true))).hasCount(0);
        taken(phone, () -> phone.getByText(Pattern.compile("Take the file")).click());
        assertThat(phone.locator("li")).containsText("taken as often as it can be");
        assertThat(phone.locator("footer a")).hasCount(0);
        assertThat(kim).containsText("everything");
        assertThat(desk.locator("aside")).containsText("Kim Sallow took a note.txt");
        assertThat(desk.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(Pattern.compile("What came: \\d")))).isVisible();

        kim.getByText("Kim Sallow").click();
        assertThat(desk.locator(".rounds")).containsText("Papers for all the Sallows");
        desk.locator(".rounds").getByText("Papers for all the Sallows").click();
        assertThat(desk.locator("aside ol").last()).containsText("changed");
    }

    @Test
    void aBrokenLineLosesNothingOfWhatIsPutIn() {
        long id = Api.json(api.post("/api/parcels", "")).path("id").asLong();
        Page desk = desk("/parcels/" + id);
        desk.locator("#parcel-title").waitFor();
        // The first try breaks off; it is tried again by itself.
        int[] tries = {0};
        desk.route(Pattern.compile(".*/bytes\\?at=.*"), route -> {
            if (tries[0]++ == 0) {
                route.abort();
            } else {
                route.resume();
            }
        });
        desk.locator(".files input[type=file]").setInputFiles(new FilePayload[] {file("minutes.txt", "of the meeting")});
        assertThat(desk.locator(".files li.READY")).hasCount(1);
        assertThat(tries[0]).isEqualTo(2);
        desk.locator("#parcel-title").fill("Minutes");
        desk.locator(".draft").getByText("Saved").waitFor();
        desk.reload();
        assertThat(desk.locator("#parcel-title")).hasValue("Minutes");
        desk.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Take minutes.txt out")).click();
        assertThat(desk.locator(".files li")).hasCount(0);
        button(desk, "Hand out").click();
        assertThat(desk.locator(".files .error")).hasText("Put at least one file in");
        button(desk, "Throw away").click();
        desk.locator(".el-popconfirm button.el-button--danger").click();
        assertThat(desk.locator("h1")).hasText("Parcels");
        assertThat(desk.locator("main")).not().containsText("Minutes");
    }

    @Test
    void thePageIsAsLightAsThatOfSenders() {
        assertThat(api.post("/api/parcels", "").statusCode()).isEqualTo(201);
        Page page = browser.page(390, 844);
        page.navigate(app.url() + "/p/nothing-is-behind-this");
        assertThat(page.locator("h1")).hasText("This link does not work");
        page.waitForLoadState(com.microsoft.playwright.options.LoadState.NETWORKIDLE);
        Number bytes = (Number) page.evaluate("""
                () => performance.getEntriesByType('resource').filter(one => /\\.(js|css)$/.test(one.name) && !/font|bitter|atkinson/i.test(one.name)).reduce((sum, one) => sum + one.encodedBodySize, 0)
                    + performance.getEntriesByType('navigation')[0].encodedBodySize""");
        assertThat(bytes.longValue()).isBetween(10_000L, MOST_BYTES);
        List<?> loaded = (List<?>) page.evaluate("() => performance.getEntriesByType('resource').map(one => one.name)");
        assertThat(loaded.toString()).doesNotContain("element-plus", "pdf.worker");
    }
}
