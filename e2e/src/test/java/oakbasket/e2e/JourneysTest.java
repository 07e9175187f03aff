package oakbasket.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Download;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.FilePayload;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.HexFormat;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.regex.Pattern;
import java.util.zip.GZIPOutputStream;
import org.junit.jupiter.api.Test;

/** The real interface in a real browser: a coordinator and senders, each in a browser of their own. */
class JourneysTest extends Journey {

    @Test
    void fromTheFirstLetterOfARoundToTheDocumentInItsFolder() throws Exception {
        Page desk = browser.desk(app);
        desk.getByText("Rounds", new Page.GetByTextOptions().setExact(true)).click();
        desk.getByText("Compose a round").click();
        desk.getByLabel("Title").pressSequentially("Hedge");
        desk.waitForURL(Pattern.compile("/rounds/\\d+/sheet"));
        desk.getByLabel("Title").fill("Hedgerow grants");
        assertThat(desk.getByText("Saved as draft at")).isVisible();

        desk.getByText("Open the round").click();
        assertThat(desk.getByText("Name the document you need").first()).isVisible();
        assertThat(desk.getByText("Say by when you need it").first()).isVisible();
        assertThat(desk.getByText("add at least one person").first()).isVisible();
        Browser.assertAccessible(desk);

        document(desk, 1).fill("Grant form");
        Fields.choose(desk, "Accepted kinds: 1. Document", "PDF");
        desk.keyboard().press("Escape");
        desk.getByLabel("Type or paste people").fill("Ida Brook <ida@example.org>\nIDA@example.org\nBen Reed at home\nCy Reed, cy@example.net");
        desk.getByText("Add these people").click();
        assertThat(desk.getByText("2 people are asked")).isVisible();
        assertThat(desk.getByText("Line 1: There is no e-mail address in this line")).isVisible();
        assertThat(desk.getByLabel("Type or paste people")).hasValue("Ben Reed at home");
        desk.getByLabel("Type or paste people").fill("Ben Reed <ben@example.org>");
        desk.getByText("Add these people").click();
        assertThat(desk.getByText("3 people are asked")).isVisible();
        Fields.date(desk, "Deadline date", LocalDate.now(ZoneId.of("UTC")).plusDays(30));
        button(desk, "Change where files go").click();
        desk.getByLabel("Folder").fill("{rond}");
        assertThat(desk.getByText("There is no field {rond}").first()).isVisible();
        desk.getByLabel("Folder").fill("Grants/{person}");
        desk.getByText("Filing", new Page.GetByTextOptions().setExact(true)).click();
        assertThat(desk.locator(".filing")).containsText("Ida Brook - Grant form");
        desk.getByLabel("Title").press("Enter");
        button(desk, "Open the round").click();
        Locator confirmed = desk.getByRole(AriaRole.DIALOG);
        assertThat(confirmed).containsText("3 people are asked, each with a link of their own.");
        assertThat(confirmed).containsText("Nobody is written to now");
        Browser.assertAccessible(desk);
        button(desk, "Not yet").click();
        assertThat(confirmed).not().isVisible();
        assertThat(desk.getByText("Ready to open.")).isVisible();
        open(desk);

        Locator ben = desk.getByRole(AriaRole.ROW, new Page.GetByRoleOptions().setName(Pattern.compile("Ben Reed")));
        assertThat(ben).containsText("not asked yet");
        ben.getByText("Ben Reed").click();
        desk.getByText("Copy link").click();
        assertThat(desk.locator(".said").last()).containsText("Link copied");
        assertThat(ben).not().containsText("not asked yet");
        String link = (String) desk.evaluate("navigator.clipboard.readText()");
        assertThat(link).startsWith(app.url() + "/b/");

        Page sender = browser.page(390, 844, "America/New_York");
        sender.navigate(link);
        assertThat(sender.getByText("For Ben Reed")).isVisible();
        assertThat(sender.getByText("In your own time")).isVisible();
        assertThat(ben).containsText("page seen");
        Browser.assertFits(sender);
        sender.getByLabel("Choose files for Grant form").setInputFiles(file("form from phone.pdf", "%PDF-1.4\nsigned\n%%EOF"));
        assertThat(sender.locator("footer button[type=submit]")).hasText("Send 1 file, 21 bytes");
        Browser.assertAccessible(sender);
        send(sender);
        assertThat(sender.getByText("Everything has arrived")).isVisible();
        Browser.assertAccessible(sender);
        Browser.assertFits(sender);
        String code = sender.locator(".code").textContent();

        assertThat(ben).containsText("all in");
        assertThat(ben.getByLabel("Grant form: arrived, to check, 1 file")).isVisible();
        assertThat(desk.locator(".counts")).containsText("1 of 3 baskets all in (33 %)");
        assertThat(desk.locator(".panel")).containsText(code);
        Path filed = app.data.resolve("files/Grants/Ben Reed");
        try (var files = Files.list(filed)) {
            assertThat(files.map(p -> p.getFileName().toString())).singleElement().asString().matches("Ben Reed - Grant form - \\d{4}-\\d\\d-\\d\\d\\.pdf");
        }
        sender.getByText("Add another document").click();
        assertThat(sender.getByText("1 file has arrived, on")).isVisible();
        assertThat(sender.locator("body")).not().containsText("form from phone");
    }

    /** Three documents, ten people from a table, opened: at most nine clicks and one paste, on a page and a half. */
    @Test
    void aUsualRoundIsComposedWithFewClicks() {
        Page desk = desk("/rounds/new");
        desk.evaluate("() => { window.clicks = 0; document.addEventListener('click', event => { if (event.detail > 0) window.clicks++ }, true) }");
        desk.getByLabel("Title", new Page.GetByLabelOptions().setExact(true)).click();
        desk.keyboard().type("Bridge keys");
        document(desk, 1).click();
        desk.keyboard().type("Key receipt");
        desk.keyboard().press("Enter");
        assertThat(document(desk, 2)).isFocused();
        desk.keyboard().type("Photo of the lock");
        desk.keyboard().press("Enter");
        assertThat(document(desk, 3)).isFocused();
        desk.keyboard().type("Route");
        document(desk, 1).press("Enter");
        assertThat(document(desk, 2)).isFocused();
        assertThat(document(desk, 4)).hasCount(0);
        desk.getByLabel("Type or paste people").click();
        StringBuilder people = new StringBuilder();
        for (int n = 1; n <= 10; n++) {
            people.append("Key Holder ").append(n).append("\tkey.holder").append(n).append("@keys.example.org\n");
        }
        desk.keyboard().insertText(people.toString());
        desk.getByText("Add these people").click();
        assertThat(desk.getByText("10 people are asked")).isVisible();
        desk.getByLabel("Deadline date").click();
        desk.keyboard().type(LocalDate.now(ZoneId.of("UTC")).plusDays(40).format(DateTimeFormatter.ofPattern("d/M/uuuu")));
        desk.keyboard().press("Enter");
        Number screens = (Number) desk.evaluate("document.documentElement.scrollHeight / innerHeight");
        open(desk);
        desk.waitForURL(Pattern.compile("/rounds/\\d+$"));
        assertThat(desk.locator("main tbody tr")).hasCount(10);
        assertThat(((Number) desk.evaluate("window.clicks")).intValue()).as("clicks").isBetween(5, 9);
        assertThat(screens.doubleValue()).as("screens of 800 pixels that the sheet takes").isLessThanOrEqualTo(2.5);
    }

    @Test
    void aBasketIsLookedThroughReviewedAndTakenAway() throws Exception {
        Page desk = desk("/rounds/" + api.round("Landowner"));
        desk.getByText("Benjamin Oakley").click();
        Locator panel = desk.locator(".panel");
        assertThat(panel).containsText("receipt");
        panel.getByLabel(Pattern.compile("^Show .*Field boundary map")).click();
        desk.waitForFunction("() => { const c = document.querySelector('.preview canvas'); return c && c.height > 300 && [...c.getContext('2d').getImageData(0, 0, c.width, 200).data].some(v => v < 120) }");
        Browser.assertAccessible(desk);
        panel.getByLabel(Pattern.compile("^Hide")).click();

        panel.getByLabel(Pattern.compile("^Return… .*Insurance")).click();
        panel.getByLabel("Why does it go back?").fill("It ends before March");
        panel.getByText("Return it").click();
        assertThat(panel.getByText("Returned: It ends before March")).isVisible();
        Locator row = desk.getByRole(AriaRole.ROW, new Page.GetByRoleOptions().setName(Pattern.compile("Benjamin Oakley")));
        assertThat(row.getByLabel("Insurance certificate: returned to the sender")).isVisible();
        desk.locator(".said").getByText("Undo").click();
        assertThat(row.getByLabel("Insurance certificate: arrived, to check, 1 file")).isVisible();

        Download one = desk.waitForDownload(() -> panel.getByLabel(Pattern.compile("^Download .*Insurance")).click());
        assertThat(one.suggestedFilename()).matches("Benjamin Oakley - Insurance certificate - .*\\.pdf");
        panel.getByLabel(Pattern.compile("^Choose .*Insurance")).check();
        panel.getByLabel(Pattern.compile("^Choose .*boundary")).check();
        Download two = desk.waitForDownload(() -> panel.getByText("Download 2 chosen files (ZIP)").click());
        assertThat(new java.util.zip.ZipFile(two.path().toFile()).size()).isEqualTo(2);
        desk.keyboard().press("Escape");
        assertThat(panel).not().isVisible();
    }

    @Test
    void theBoardFiltersFindsSortsAndHoldsStillUnderThePointer() {
        long round = api.round("River-fly");
        Page desk = desk("/rounds/" + round);
        Locator rows = desk.locator("main tbody tr");
        assertThat(desk.locator(".ruler")).hasAttribute("aria-label", Pattern.compile("Time line: .* of 18 baskets all in"));
        assertThat(rows.first()).containsText("overdue");
        desk.getByText(Pattern.compile("^Overdue")).click();
        int overdue = api.get("/api/rounds/" + round + "/board").path("counts").path("byTimeliness").path("OVERDUE").asInt();
        assertThat(rows).hasCount(overdue);
        assertThat(desk.getByText(Pattern.compile("^Overdue"))).containsText(Integer.toString(overdue));

        desk.mouse().move(1, 1);
        rows.first().hover();
        String first = rows.first().locator(".person").textContent();
        api.act(round, first, "EXCUSE", "\"on\":true");
        assertThat(rows.first()).containsText("excused");
        assertThat(rows).hasCount(overdue);
        desk.mouse().move(1, 1);
        assertThat(rows).hasCount(overdue - 1);
        api.act(round, first, "EXCUSE", "\"on\":false");

        desk.getByText(Pattern.compile("^Everybody")).click();
        desk.getByLabel("Find a person").fill("otterholt");
        assertThat(rows).hasCount(2);
        desk.getByLabel("Find a person").fill("nobody at all");
        assertThat(desk.getByText("Nobody here fits.")).isVisible();
        desk.getByLabel("Find a person").press("Escape");
        desk.getByLabel("Sort by Person").click();
        assertThat(rows.first()).containsText("Anouk Perrin");
    }

    @Test
    void aDeadlineIsExtendedForOnePersonAndTheirPageSaysSo() {
        long round = api.round("Landowner");
        Page desk = desk("/rounds/" + round + "?basket=" + api.row(round, "Liam Copse").path("id").asLong());
        Locator panel = desk.locator(".panel");
        fromMenu(desk, "Extend…");
        Fields.date(desk, "New deadline", LocalDate.of(2020, 1, 1));
        panel.getByLabel("Why").fill("lambing");
        panel.getByText("Extend", new Locator.GetByTextOptions().setExact(true)).click();
        assertThat(panel.getByText("Choose today or a later day")).isVisible();
        LocalDate later = LocalDate.now(ZoneId.of("Europe/London")).plusDays(40);
        Fields.date(desk, "New deadline", later);
        panel.getByText("Extend", new Locator.GetByTextOptions().setExact(true)).click();
        assertThat(panel.getByText("Extended to " + later + ": lambing")).isVisible();
        Page sender = browser.page(390, 844);
        sender.navigate(api.personalLink(round, "Liam Copse"));
        assertThat(sender.locator(".deadline")).containsText(later.getDayOfMonth() + " ");
        assertThat(sender.locator(".deadline")).containsText("end of the day");
        desk.locator(".said").getByText("Undo").click();
        assertThat(panel.getByText("Extended to " + later + ": lambing")).not().isVisible();
    }

    @Test
    void theBoardIsWorkedWithTheKeyboardAlone() {
        Page desk = desk("/rounds/" + api.round("Landowner"));
        desk.getByLabel("Find a person").focus();
        desk.keyboard().type("Greta");
        assertThat(desk.locator("main tbody tr")).hasCount(1);
        Locator greta = desk.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Greta Lindqvist").setExact(true));
        for (int tabs = 0; tabs < 14 && !(Boolean) greta.evaluate("button => button === document.activeElement"); tabs++) {
            desk.keyboard().press("Tab");
        }
        assertThat(greta).isFocused();
        desk.keyboard().press("Enter");
        assertThat(desk.locator(".panel h2")).hasText("Greta Lindqvist");
        assertThat(desk.locator(".panel")).isFocused();
        desk.keyboard().press("Escape");
        assertThat(desk.locator(".panel")).not().isVisible();
        assertThat(greta).isFocused();
    }

    @Test
    void filesComeByDroppingAndPastingTooAndTheSameOneOnlyOnce() {
        Page sender = browser.page(1280, 800);
        sender.navigate(api.personalLink(api.round("Landowner"), "Piotr Zielinski"));
        Locator card = sender.locator("section.card").nth(1);
        card.waitFor();
        String event = """
                (card, type) => {
                    const data = new DataTransfer()
                    data.items.add(new File(['%PDF-1.4 map'], type + 'ed.pdf', { type: 'application/pdf', lastModified: 5 }))
                    card.dispatchEvent(type === 'drop' ? new DragEvent('drop', { dataTransfer: data, bubbles: true, cancelable: true })
                        : new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }))
                }""";
        card.evaluate(event, "drop");
        assertThat(card.locator(".mono").getByText("droped.pdf")).isVisible();
        card.evaluate(event, "paste");
        assertThat(card.locator(".mono").getByText("pasteed.pdf")).isVisible();
        card.evaluate(event, "drop");
        assertThat(card.getByText("droped.pdf is in the list already.")).isVisible();
        assertThat(card.locator("li")).hasCount(2);
        send(sender);
        assertThat(sender.locator(".receipt li")).hasCount(2);
    }

    @Test
    void sendingIsPausedAndGoesOnAndOneFileIsCancelled() {
        Page sender = browser.page(1280, 800);
        sender.navigate(api.personalLink(api.round("Landowner"), "Elspeth Alder"));
        Browser.slowDown(sender, 2_000_000);
        byte[] large = new byte[8_000_000];
        filesFor(sender, "Anything we should know").setInputFiles(new FilePayload[] {
            new FilePayload("kept.bin", "application/octet-stream", large), new FilePayload("cancelled.bin", "application/octet-stream", large)});
        send(sender);
        sender.waitForFunction("() => { const p = document.querySelector('footer progress'); return p && p.value > 1e6 }");
        sender.getByText("Pause").click();
        assertThat(sender.getByText("Go on")).isVisible();
        assertThat(sender.locator("footer")).containsText("Sending: 0 of 2 there");
        sender.getByLabel("Cancel this file: cancelled.bin").click();
        sender.getByText("Go on").click();
        assertThat(sender.locator(".receipt li")).hasCount(1, new com.microsoft.playwright.assertions.LocatorAssertions.HasCountOptions().setTimeout(40_000));
        assertThat(sender.locator(".receipt")).containsText("kept.bin");
        assertThat(api.row(api.round("Landowner"), "Elspeth Alder").path("files").asInt()).isEqualTo(1);
    }

    @Test
    void aSessionThatEndedLeadsToSigningInAndBack() {
        long round = api.round("Placement");
        Page desk = browser.desk(app);
        desk.context().clearCookies();
        desk.navigate(app.url() + "/rounds/" + round);
        desk.getByLabel("E-mail").fill(Api.EMAIL);
        desk.getByLabel("Password").fill(Api.PASSWORD);
        desk.locator("button[type=submit]").click();
        assertThat(desk.locator("h1")).hasText("Placement portfolios");
        desk.getByText("Sign out").click();
        assertThat(desk.getByText("Sign in to your desk")).isVisible();
        desk.goBack();
        assertThat(desk.getByText("Sign in to your desk")).isVisible();
    }

    /** A real start, from the jar as it is handed out and without the demo: no default password, the code from the console, and an empty desk that says what to do. */
    @Test
    void theFirstAccountIsMadeWithTheCodeFromTheConsole() {
        try (PackagedApp fresh = PackagedApp.of(PackagedApp.JAR, PackagedApp.freshFolder())) {
            String code = fresh.log().stream().filter(line -> line.contains("set-up code: ")).map(line -> line.substring(line.lastIndexOf(' ') + 1)).findFirst().orElseThrow();
            Page desk = browser.page(1280, 800);
            desk.navigate(fresh.url() + "/");
            assertThat(desk.getByText("Make the first account")).isVisible();
            Browser.assertAccessible(desk);
            desk.getByLabel("Set-up code").fill("WRONG");
            desk.getByLabel("Your name").fill("Wren");
            desk.getByLabel("E-mail").fill("wren@example.org");
            desk.getByLabel("Password").fill("short");
            desk.locator("button[type=submit]").click();
            assertThat(desk.getByText("This is not the code on the server’s console")).isVisible();
            assertThat(desk.getByText("Use at least 12 characters")).isVisible();
            desk.getByLabel("Set-up code").fill(code);
            desk.getByLabel("Password").fill("a kingfisher in the reeds");
            desk.locator("button[type=submit]").click();
            assertThat(desk.getByText("There is no round yet.")).isVisible();
            Browser.assertAccessible(desk);
        }
    }

    /** The standings in the order of their codes; see TileCode. */
    private static final String[] STANDINGS = {"NOT_OWED", "WAIVED", "RETURNED", "ACCEPTED", "ARRIVED", "PART", "WANTED"};

    /** The demo is what people judge by: every standing must be there. */
    @Test
    void theDemoShowsEveryStanding() {
        java.util.Set<String> seen = new java.util.TreeSet<>();
        int people = 0;
        for (String title : new String[] {"Landowner", "River-fly", "Placement"}) {
            for (tools.jackson.databind.JsonNode row : api.get("/api/rounds/" + api.round(title) + "/board").path("rows")) {
                people++;
                seen.add(row.path("progress").asString());
                seen.add(row.path("timeliness").asString());
                row.path("tiles").forEach(tile -> seen.add(STANDINGS[tile.asInt() % 8]));
            }
        }
        assertThat(people).isGreaterThanOrEqualTo(40);
        assertThat(seen).contains("NOT_ASKED", "ASKED", "OPENED", "PART", "COMPLETE", "CHECKED", "AHEAD", "DUE_SOON", "IN_GRACE", "OVERDUE", "ON_TIME", "LATE",
                "WAIVED", "RETURNED", "ACCEPTED", "ARRIVED", "WANTED");
    }

    @Test
    void onAnOpenLinkWhatIsMissingIsAskedForAtTheFieldAndNothingChosenIsLost() {
        long round = openRound("Logs with a passcode", "kingfisher");
        Page sender = openLink(round);
        Browser.assertAccessible(sender);
        sender.getByLabel("Passcode").fill("not this");
        sender.getByText("Go on").click();
        assertThat(sender.getByText("This is not the passcode")).isVisible();
        sender.getByLabel("Passcode").fill("kingfisher");
        sender.getByText("Go on").click();
        sender.getByLabel("Choose files for Anything else").setInputFiles(file("log.txt", "week one"));
        send(sender);
        assertThat(sender.getByText("Please give your name")).isVisible();
        assertThat(sender.getByLabel("Your name")).isFocused();
        Browser.assertAccessible(sender);
        Browser.assertFits(sender);
        sender.getByLabel("Your name").fill("Nora Teal");
        sender.getByLabel("Your e-mail address").fill("nora@localhost");
        send(sender);
        assertThat(sender.getByText("is not a full domain")).isVisible();
        assertThat(sender.locator(".mono").getByText("log.txt")).isVisible();
        sender.getByLabel("Your e-mail address").fill("nora@example.net");
        send(sender);
        assertThat(sender.locator(".code")).isVisible();
        assertThat(api.row(round, "Nora Teal").path("walkIn").asBoolean()).isTrue();
    }

    @Test
    void badFilesAreMarkedWhereTheyAreAndTheRestGoesThrough() {
        Page sender = browser.page(1280, 800);
        sender.navigate(api.personalLink(api.round("Landowner"), "Jonas Reed"));
        Locator consent = sender.getByLabel("Choose files for Signed access consent");
        consent.setInputFiles(new FilePayload[] {file("good.pdf", "%PDF-1.4\nok"), file("empty.pdf", ""), file("third.pdf", "%PDF-1.4\n3")});
        assertThat(sender.getByText("This file is empty (0 bytes)")).isVisible();
        assertThat(sender.getByText("No more than 2 fit here. Not added: third.pdf.")).isVisible();
        send(sender);
        assertThat(sender.getByText("Please remove or replace the marked files")).isVisible();
        sender.getByLabel("Remove empty.pdf").click();
        filesFor(sender, "Insurance certificate").setInputFiles(file("picture.pdf", "\u0089PNG\r\n\u001a\n"));
        send(sender);
        assertThat(sender.getByText("promises another kind of file")).isVisible();
        assertThat(sender.getByText("What has arrived is safe.")).isVisible();
        Browser.assertAccessible(sender);
        sender.getByLabel("Remove picture.pdf").click();
        sender.getByText("Send the rest").click();
        assertThat(sender.locator(".receipt li")).hasCount(1);
        assertThat(api.row(api.round("Landowner"), "Jonas Reed").path("files").asInt()).isEqualTo(1);
    }

    @Test
    void closingShutsTheLinkAndReopeningOpensIt() {
        long round = api.round("River-fly");
        String link = api.personalLink(round, "Anouk Perrin");
        Page desk = desk("/rounds/" + round);
        Locator actions = desk.locator("header .actions");
        actions.getByText("More", new Locator.GetByTextOptions().setExact(true)).click();
        actions.getByText("Close the round").click();
        desk.getByRole(AriaRole.DIALOG).getByText("Close the round").last().click();
        assertThat(desk.getByText("Links refuse; what was received is here.")).isVisible();
        Page sender = browser.page(390, 844);
        sender.navigate(link);
        assertThat(sender.getByText("This collection is closed")).isVisible();
        Browser.assertAccessible(sender);
        actions.getByText("Reopen the round").click();
        assertThat(actions.getByText("Reopen the round")).not().isVisible();
        sender.reload();
        assertThat(sender.getByText("For Anouk Perrin")).isVisible();
    }

    @Test
    void aRehearsalShowsThePageRefusesWhatSendingRefusesAndFilesNothing() {
        long round = openRound("Rehearsed", "");
        Page desk = desk("/rounds/" + round);
        int before = api.get("/api/rounds/" + round + "/board").path("counts").path("files").asInt();
        desk.getByText("More", new Page.GetByTextOptions().setExact(true)).click();
        Page rehearsal = desk.waitForPopup(() -> desk.getByText("Rehearse as a sender").click());
        assertThat(rehearsal.getByText("Rehearsal: this is what a sender sees")).isVisible();
        assertThat(rehearsal.getByText("For Tamsin Withy")).isVisible();
        rehearsal.getByLabel("Choose files for Learning log").setInputFiles(file("a.pdf", "abc"));
        send(rehearsal);
        assertThat(rehearsal.getByText("promises another kind of file")).isVisible();
        rehearsal.getByLabel("Remove a.pdf").click();
        rehearsal.getByLabel("Choose files for Anything else").setInputFiles(file("a.txt", "abc"));
        send(rehearsal);
        assertThat(rehearsal.locator(".code")).hasText("0000-0000-0000");
        // FIPS 180-4, NIST example "abc".
        assertThat(rehearsal.locator(".sha")).hasText("ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad");
        assertThat(api.get("/api/rounds/" + round + "/board").path("counts").path("files").asInt()).isEqualTo(before);
    }

    @Test
    void everyViewOfTheDeskIsAccessibleAndTodayMovesByItself() {
        Page door = browser.page(1280, 800);
        door.navigate(app.url() + "/");
        door.getByLabel("E-mail").waitFor();
        Browser.assertAccessible(door);
        door.getByLabel("E-mail").fill(Api.EMAIL);
        door.getByLabel("Password").fill("not my password");
        door.locator("button[type=submit]").click();
        assertThat(door.getByText("The address or the password is not right.")).isVisible();

        Page desk = browser.desk(app);
        assertThat(desk.getByText("Coming up")).isVisible();
        assertThat(desk.locator(".fresh").first()).isVisible();
        Browser.assertAccessible(desk);
        Page sender = browser.page(390, 844);
        sender.navigate(api.personalLink(api.round("Landowner"), "Hamish Weir"));
        filesFor(sender, "Insurance certificate").setInputFiles(file("a.pdf", "%PDF-1.4\nx"));
        send(sender);
        assertThat(desk.locator("section").first().getByText("Hamish Weir", new Locator.GetByTextOptions().setExact(true))).isVisible();
        for (String path : new String[] {"/rounds", "/rounds/new", "/rounds/" + api.round("River-fly")}) {
            desk.navigate(app.url() + path);
            desk.locator("h1").waitFor();
            assertThat(desk.getByText("Loading…")).hasCount(0);
            Browser.assertAccessible(desk);
        }
        desk.setViewportSize(1024, 768);
        Browser.assertFits(desk);
    }

    @Test
    void theBasketPageWeighsLittle() {
        Page sender = browser.page(390, 844);
        Map<String, Integer> weights = new ConcurrentHashMap<>();
        sender.onResponse(response -> {
            if (response.url().endsWith(".js") || response.url().endsWith(".css")) {
                weights.put(response.url(), gzipped(response.body()));
            }
        });
        sender.navigate(api.personalLink(api.round("Landowner"), "Duncan Marsh"));
        filesFor(sender, "Insurance certificate").setInputFiles(file("a.pdf", "%PDF-1.4\nx"));
        send(sender);
        sender.locator(".code").waitFor();
        assertThat(weights.values().stream().mapToInt(Integer::intValue).sum()).as("bytes of script and style, gzip: %s", weights).isBetween(20_000, 70 * 1024);
    }

    /** The official tus-js-client in the browser, over a slow line, while the server is killed and comes back. */
    @Test
    void anUploadGoesOnByItselfAfterTheServerWasKilled() throws Exception {
        try (PackagedApp fragile = new PackagedApp(PackagedApp.freshFolder(), "--oakbasket.demo=true")) {
            Api api = new Api(fragile.url());
            Page sender = browser.page(1280, 800);
            sender.navigate(api.personalLink(api.round("Landowner"), "Ada Brook"));
            Browser.slowDown(sender, 4_000_000);
            byte[] content = new byte[24_000_000];
            new java.util.Random(3).nextBytes(content);
            filesFor(sender, "Anything we should know").setInputFiles(new FilePayload("film.bin", "application/octet-stream", content));
            send(sender);
            sender.waitForFunction("() => { const p = document.querySelector('footer progress'); return p && p.value > 6e6 }");
            fragile.kill();
            assertThat(sender.getByText("The connection broke. Going on by itself")).isVisible();
            fragile.start();
            assertThat(sender.locator(".code")).isVisible(new com.microsoft.playwright.assertions.LocatorAssertions.IsVisibleOptions().setTimeout(90_000));
            String sha256 = HexFormat.of().formatHex(java.security.MessageDigest.getInstance("SHA-256").digest(content));
            assertThat(sender.locator(".sha")).hasText(sha256);
        }
    }

    private static int gzipped(byte[] content) {
        try {
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            try (GZIPOutputStream gzip = new GZIPOutputStream(out)) {
                gzip.write(content);
            }
            return out.size();
        } catch (IOException impossible) {
            throw new IllegalStateException(impossible);
        }
    }
}
