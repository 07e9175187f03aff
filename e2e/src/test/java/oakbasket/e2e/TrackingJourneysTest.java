package oakbasket.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Download;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.FilePayload;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Who owes what: contacts, the board at full strength, review, and rounds that change and come again, in a real browser. */
class TrackingJourneysTest extends Journey {

    @Test
    void contactsArePastedPreviewedImportedMergedAndTheImportIsUndone() {
        Page desk = desk("/contacts/import");
        Browser.assertAccessible(desk);
        desk.getByLabel("Or paste from a spreadsheet").fill("Name\tE-mail\tFarm\nSkye Pool\tskye@example.org\tPool House\nPool, Skye\tskye.pool@gmial.com\tPool House\nNobody\tnot an address\t\n");
        desk.getByText("Read it").click();
        assertThat(desk.getByText("Perhaps meant: skye.pool@gmail.com")).isVisible();
        assertThat(desk.getByText("Same name and organisation as skye@example.org")).isVisible();
        button(desk, "Refused 1").click();
        assertThat(desk.getByText(Pattern.compile("is not an e-mail address"))).isVisible();
        Fields.choose(desk, "Column 3", "leave out");
        button(desk, "Added 2").click();
        Fields.choose(desk, "Column 3", "Organisation");
        desk.getByLabel("Put everybody into this group").fill("Pools");
        assertThat(desk.locator("table.plain").last()).containsText("Pools");
        Browser.assertAccessible(desk);
        button(desk, "Import: add 2, change 0").click();
        assertThat(desk.getByText("Done: 2 added, 0 changed.")).isVisible();
        desk.getByText("Go to the contacts").click();
        button(desk, "Pools 2").click();
        assertThat(desk.locator("main tbody tr")).hasCount(2);
        Browser.assertAccessible(desk);
        Browser.assertFits(desk);
        desk.navigate(app.url() + "/contacts/twice");
        desk.getByText("Keep skye@example.org").click();
        assertThat(desk.getByText("No contact seems to be there twice.")).isVisible();
        Browser.assertAccessible(desk);
        desk.locator(".said").getByText("Undo").click();
        assertThat(desk.getByText("Keep skye.pool@gmial.com")).isVisible();
        desk.locator(".acts li", new Page.LocatorOptions().setHasText("Pasted: 2 added")).getByText("Undo").click();
        assertThat(desk.getByText("No contact seems to be there twice.")).isVisible();
        assertThat(api.get("/api/contacts?find=skye").path("total").asInt()).isZero();
    }

    @Test
    void aContactsPageShowsEveryRoundAndIsCorrectedWithFaultsAtTheField() {
        Page desk = desk("/contacts");
        desk.getByLabel("Find a contact").fill("imogen");
        assertThat(desk.locator("main tbody tr")).hasCount(1);
        desk.locator("main tbody a").click();
        Locator rounds = desk.locator(".rounds");
        assertThat(rounds).containsText("Landowner consent packs");
        assertThat(rounds).containsText("returned: The signature page is missing");
        Browser.assertAccessible(desk);
        desk.getByLabel("Time zone").fill("Nowhere/At all");
        button(desk, "Save").click();
        assertThat(desk.getByText("“Nowhere/At all” is not a time zone.")).isVisible();
        desk.getByLabel("Time zone").fill("Europe/Dublin");
        desk.getByLabel("Notes").fill("rings on Fridays");
        button(desk, "Save").click();
        assertThat(desk.locator(".said")).containsText("Saved");
        assertThat(api.get("/api/contacts?find=imogen").path("contacts").get(0).path("zone").asString()).isEqualTo("Europe/Dublin");
    }

    @Test
    void manyAreChosenAndTheChoiceOutlivesWhatArrivesAndTheActIsUndone() {
        long round = api.round("River-fly");
        Page desk = desk("/rounds/" + round);
        desk.getByLabel("Sort by Person").click();
        assertThat(desk.locator("main tbody .person").first()).hasText("Anouk Perrin");
        Locator ticks = desk.locator("main tbody input[type=checkbox]");
        ticks.nth(1).click();
        ticks.nth(4).click(new Locator.ClickOptions().setModifiers(java.util.List.of(com.microsoft.playwright.options.KeyboardModifier.SHIFT)));
        assertThat(desk.getByText("4 people chosen")).isVisible();
        String arrived = desk.locator("main tbody .person").nth(2).textContent();
        api.act(round, arrived, "NOTE", "\"text\":\"came meanwhile\"");
        assertThat(desk.getByText("came meanwhile")).isVisible();
        assertThat(desk.getByText("4 people chosen")).isVisible();
        button(desk, "Extend…").click();
        Fields.date(desk, "New deadline", LocalDate.now().plusDays(30));
        desk.getByLabel("Why").fill("flood");
        button(desk, "Extend").click();
        assertThat(desk.locator(".said")).containsText("4 people");
        assertThat(desk.locator("main tbody").getByText(Pattern.compile("^extended to"))).hasCount(5);
        Browser.assertAccessible(desk);
        desk.locator(".said").getByText("Undo").click();
        assertThat(desk.locator(".said").last()).containsText("undone");
        assertThat(desk.locator("main tbody").getByText(Pattern.compile("^extended to"))).hasCount(1);

        button(desk, "Remove").click();
        assertThat(button(desk, "Removed 4")).isVisible();
        button(desk, "Removed 4").click();
        assertThat(desk.locator("main tbody tr")).hasCount(4);
        button(desk, "Put back").click();
        assertThat(desk.getByText("Nobody here fits.")).isVisible();
        desk.keyboard().press("Escape");
        api.act(round, arrived, "NOTE", "\"text\":\"\"");
    }

    @Test
    void everyCountOpensTheListItCountsAndTheListHasAnAddress() {
        long round = api.round("Landowner");
        JsonNode counts = api.get("/api/rounds/" + round + "/board").path("counts");
        Page desk = desk("/rounds/" + round);
        desk.getByText(Pattern.compile("files from \\d+ senders")).click();
        assertThat(desk.locator("main tbody tr")).hasCount(counts.path("senders").asInt());
        desk.waitForURL(Pattern.compile("show=sent"));
        desk.getByText(Pattern.compile("baskets all in")).click();
        assertThat(desk.locator("main tbody tr")).hasCount(counts.path("complete").asInt());
        desk.reload();
        assertThat(desk.locator("main tbody tr")).hasCount(counts.path("complete").asInt());
        desk.navigate(app.url() + "/rounds");
        desk.locator("tr", new Page.LocatorOptions().setHasText("Landowner")).getByText(Pattern.compile("^\\d+ of \\d+$")).click();
        assertThat(desk.locator("main tbody tr")).hasCount(counts.path("complete").asInt());
        desk.navigate(app.url() + "/");
        desk.locator("section", new Page.LocatorOptions().setHasText("Needs you")).getByText(Pattern.compile("people not asked yet")).first().click();
        assertThat(desk.locator("main tbody tr")).hasCount(counts.path("byProgress").path("NOT_ASKED").asInt());
    }

    @Test
    void theBoardIsGroupedItsColumnsChosenAndItsKeysAreTold() {
        long round = api.round("Landowner");
        Page desk = desk("/rounds/" + round);
        desk.locator("main tbody .person").first().waitFor();
        desk.keyboard().press("?");
        assertThat(desk.getByText("only who owes something")).isVisible();
        Browser.assertAccessible(desk);
        desk.keyboard().press("Escape");
        assertThat(desk.getByText("only who owes something")).not().isVisible();
        desk.keyboard().press("o");
        desk.waitForURL(Pattern.compile("show=owes"));
        desk.keyboard().press("j");
        assertThat(desk.locator("main tbody .person").first()).isFocused();
        desk.keyboard().press("ArrowDown");
        assertThat(desk.locator("main tbody .person").nth(1)).isFocused();
        desk.keyboard().press("x");
        assertThat(desk.getByText("1 person chosen")).isVisible();
        desk.keyboard().press("Escape");
        assertThat(desk.getByText("1 person chosen")).not().isVisible();
        desk.keyboard().press("o");
        desk.getByText("View", new Page.GetByTextOptions().setExact(true)).click();
        desk.getByRole(AriaRole.RADIO, new Page.GetByRoleOptions().setName("standing")).check();
        assertThat(desk.locator("tr.group", new Page.LocatorOptions().setHasText("excused"))).hasText(Pattern.compile("excused\\s+1"));
        desk.getByLabel("Reference").check();
        desk.getByRole(AriaRole.CHECKBOX, new Page.GetByRoleOptions().setName("Insurance certificate")).uncheck();
        assertThat(desk.getByLabel("Sort by Reference")).isVisible();
        Browser.assertAccessible(desk);
        desk.reload();
        assertThat(desk.getByLabel("Sort by Reference")).isVisible();
        assertThat(desk.locator("thead")).not().containsText("Insurance certificate");
    }

    /** 1280 × 800 is the window that offices have. */
    @Test
    void twelvePeopleAreSeenAtOnceAndTheBoardIsSortedByAnyColumnAndBack() {
        Page desk = desk("/rounds/" + api.round("Landowner"));
        desk.locator("main tbody .person").first().waitFor();
        Number seen = (Number) desk.evaluate("[...document.querySelectorAll('main tbody tr')].filter(row => row.getBoundingClientRect().bottom <= innerHeight).length");
        assertThat(seen.intValue()).as("people in the window").isGreaterThanOrEqualTo(12);
        desk.getByText("Time line").click();
        assertThat(desk.locator(".ruler .ticks")).isVisible();
        desk.reload();
        assertThat(desk.locator(".ruler .ticks")).isVisible();
        desk.getByText("Time line").click();
        assertThat(desk.locator(".ruler .ticks")).not().isVisible();

        Locator consent = desk.locator("th", new Page.LocatorOptions().setHasText("Signed access consent"));
        desk.getByLabel("Sort by Signed access consent").click();
        assertThat(consent).hasAttribute("aria-sort", "descending");
        assertThat(desk.locator("main tbody .person").first()).hasText("Imogen Sallow");
        desk.getByLabel("Sort by Signed access consent").click();
        assertThat(consent).hasAttribute("aria-sort", "ascending");
        assertThat(desk.locator("main tbody .person").last()).hasText("Imogen Sallow");
        Page colleague = browser.desk(app, desk.url().substring(app.url().length()));
        assertThat(colleague.locator("main tbody .person").last()).hasText("Imogen Sallow");
        desk.navigate(app.url() + "/rounds/" + api.round("Landowner"));
        assertThat(desk.locator("main tbody .person").last()).hasText("Imogen Sallow");
    }

    @Test
    void everythingWaitingIsCheckedWithTheKeyboardWhileThePreviewStays() {
        long round = api.round("Placement");
        Page desk = desk("/rounds/" + round + "/review");
        assertThat(desk.locator("h1")).hasText("3 files to check, 2 claimed");
        Browser.assertAccessible(desk);
        String first = desk.locator(".look h2").textContent();
        desk.keyboard().press("a");
        assertThat(desk.locator("h1")).hasText("2 files to check, 2 claimed");
        assertThat(desk.locator(".waiting li").first()).containsText("Accepted");
        assertThat(desk.locator(".look h2")).not().hasText(first);
        desk.keyboard().press("r");
        assertThat(desk.getByText("Say first whose it is.")).isVisible();
        desk.keyboard().press("ArrowRight");
        desk.keyboard().press("ArrowRight");
        desk.keyboard().press("r");
        assertThat(desk.getByLabel("Why does it go back?")).isFocused();
        desk.getByText("The signature is missing").click();
        Browser.assertAccessible(desk);
        desk.getByText("Return it").click();
        assertThat(desk.locator("h1")).hasText("1 file to check, 2 claimed");
        assertThat(desk.locator(".waiting li").nth(3)).containsText("Returned");
        desk.locator(".said").last().getByText("Undo").click();
        assertThat(desk.locator("h1")).hasText("2 files to check, 2 claimed");
        for (int n = 0; n < 3; n++) {
            desk.keyboard().press("ArrowLeft");
        }
        assertThat(desk.locator(".look h2")).hasText(first);
        assertThat(api.get("/api/rounds/" + round + "/board").path("counts").path("toCheck").asInt()).isEqualTo(2);
    }

    @Test
    void theSecondOfTwoCoordinatorsIsToldOnTheScreen() {
        long round = api.round("Landowner");
        Page desk = browser.desk(app);
        desk.route("**/api/live", route -> route.fulfill(new com.microsoft.playwright.Route.FulfillOptions().setStatus(204)));
        desk.navigate(app.url() + "/rounds/" + round + "?basket=" + api.row(round, "Tilda Moss").path("id"));
        desk.locator(".panel h2").waitFor();
        api.act(round, "Tilda Moss", "PAUSE", "\"on\":true");
        fromMenu(desk, "Excuse from everything");
        assertThat(desk.getByText(Pattern.compile("A colleague changed this meanwhile: Tilda Moss"))).isVisible();
        assertThat(api.row(round, "Tilda Moss").path("waived").asBoolean()).isFalse();
        fromMenu(desk, "Chase again");
        desk.waitForCondition(() -> !api.row(round, "Tilda Moss").path("paused").asBoolean());
    }

    @Test
    void aRoundIsComposedForAGroupWithABlankFormAndMoreAreAskedLate() {
        Page desk = desk("/rounds/new");
        desk.getByLabel("Title").fill("Otter survey");
        document(desk, 1).fill("Count sheet");
        button(desk, "More 1. Document").click();
        desk.locator("input[type=file]").setInputFiles(new FilePayload("blank sheet.pdf", "application/pdf", "%PDF-1.4 blank".getBytes(StandardCharsets.US_ASCII)));
        assertThat(desk.getByText("blank sheet.pdf")).isVisible();
        Fields.choose(desk, "Only these groups owe it", "River-fly surveyors");
        desk.keyboard().press("Escape");
        desk.getByLabel("Find a contact or a group").pressSequentially("river-fly");
        desk.locator(".found li:visible", new Page.LocatorOptions().setHasText("group of")).click();
        assertThat(desk.getByText("Everybody in “River-fly surveyors”, as the group is when the round opens")).isVisible();
        Fields.date(desk, "Deadline date", LocalDate.now().plusDays(25));
        button(desk, "Change the other dates").click();
        Fields.date(desk, "Links shut by themselves", LocalDate.now().plusDays(20));
        button(desk, "Open the round").click();
        assertThat(desk.getByText("Links cannot shut before the deadline").first()).isVisible();
        Fields.date(desk, "Links shut by themselves", LocalDate.now().plusDays(40));
        Fields.date(desk, "Keep the papers until", LocalDate.now().plusYears(2));
        desk.getByText("Keep this checklist…").click();
        desk.getByLabel("Name it").fill("Count and form");
        button(desk, "Keep").click();
        assertThat(desk.locator(".said").last()).containsText("Kept");
        Browser.assertAccessible(desk);
        open(desk);
        desk.waitForURL(Pattern.compile("/rounds/\\d+$"));
        assertThat(desk.locator("main tbody tr")).hasCount(18);
        long round = api.round("Otter survey");

        Page sender = browser.page(390, 844);
        sender.navigate(api.personalLink(round, "Anouk Perrin"));
        Download form = sender.waitForDownload(() -> sender.getByText("Take the blank form along").click());
        assertThat(form.suggestedFilename()).isEqualTo("blank sheet.pdf");
        Browser.assertAccessible(sender);

        button(desk, "Ask more people").click();
        desk.getByLabel("Find a contact or a group").pressSequentially("ada.brook");
        desk.locator(".found li:visible").first().click();
        button(desk, "Ask them").click();
        assertThat(desk.locator("main tbody tr")).hasCount(19);
        assertThat(desk.getByLabel("Count sheet: not asked of this person").first()).isVisible();

        desk.getByText("More", new Page.GetByTextOptions().setExact(true)).click();
        desk.getByText("Change the round…").click();
        desk.getByText("Add a document", new Page.GetByTextOptions().setExact(true)).click();
        document(desk, 2).fill("Photo");
        button(desk, "See whom it affects").click();
        assertThat(desk.locator(".effect")).containsText("owes something again");
        Browser.assertAccessible(desk);
        button(desk, "Apply the change").click();
        desk.waitForURL(Pattern.compile("/rounds/\\d+$"));
        assertThat(desk.locator("thead")).containsText("Photo");

        desk.getByText("More", new Page.GetByTextOptions().setExact(true)).click();
        desk.getByText("Let it come again…").click();
        assertThat(desk.getByText("Due the last working day of each month")).isVisible();
        Fields.choose(desk, "How often", "by a rule of RFC 5545");
        desk.getByLabel("Rule").fill("FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30");
        assertThat(desk.getByText("This rule never comes to a day.")).isVisible();
        desk.getByLabel("Rule").fill("FREQ=MONTHLY;BYDAY=2TU");
        assertThat(desk.getByText("Due the second Tuesday of each month")).isVisible();
        Browser.assertAccessible(desk);
        desk.getByLabel("Opens so many days before the deadline").fill("40");
        assertThat(desk.getByText("which has passed. It opens as soon as you save.")).isVisible();
        button(desk, "Let it come again").click();
        assertThat(desk.getByText("Say that this is meant")).isVisible();
        desk.getByText("Open it late, all the same").click();
        button(desk, "Let it come again").click();
        Locator series = desk.locator("section", new Page.LocatorOptions().setHasText("Rounds that come again"));
        assertThat(series).containsText("everybody in “River-fly surveyors”");
        series.getByLabel("Pause: Otter survey").click();
        assertThat(series.getByLabel("Resume: Otter survey")).isVisible();
        Browser.assertAccessible(desk);
    }

    @Test
    void searchLeadsToPeopleRoundsAndReceipts() {
        long round = api.round("Landowner");
        String code = api.get("/api/baskets/" + api.row(round, "Imogen Sallow").path("id")).path("files").get(0).path("receipt").asString();
        Page desk = desk("/");
        desk.locator(".columns").waitFor();
        desk.keyboard().press("/");
        desk.keyboard().type(code);
        desk.locator(".found li:visible", new Page.LocatorOptions().setHasText("receipt")).click();
        assertThat(desk.locator(".panel h2")).hasText("Imogen Sallow");
        desk.keyboard().press("Escape");
        desk.getByLabel("Search people, rounds").fill("placement port");
        desk.locator(".found li:visible", new Page.LocatorOptions().setHasText("round")).first().click();
        assertThat(desk.locator("h1")).hasText("Placement portfolios");
    }

    @Test
    void calendarsAreKeptAndDeadlinesAreSubscribedTo() {
        Page desk = desk("/setup");
        Locator card = desk.locator("article").first();
        Fields.choose(desk, "Public holidays of", "United Kingdom");
        Fields.choose(desk, "Part of the country", "England");
        card.getByText("Save", new Locator.GetByTextOptions().setExact(true)).click();
        assertThat(card.getByText(Pattern.compile("Public holidays \\d+ \\(\\d+\\)"))).isVisible();
        card.getByText("Add the day").click();
        assertThat(card.getByText("Choose a day")).isVisible();
        String file = "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\nBEGIN:VEVENT\r\nUID:1\r\nDTSTAMP:20260101T000000Z\r\nDTSTART;VALUE=DATE:" + LocalDate.now().plusDays(9).toString().replace("-", "")
                + "\r\nSUMMARY:Stocktaking\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n";
        card.locator("input[type=file]").setInputFiles(new FilePayload("days.ics", "text/calendar", file.getBytes(StandardCharsets.US_ASCII)));
        assertThat(card.getByText("Stocktaking")).isVisible();
        card.locator("li", new Locator.LocatorOptions().setHasText("Stocktaking")).getByRole(AriaRole.BUTTON).click();
        assertThat(card.getByText("Stocktaking")).not().isVisible();
        Browser.assertAccessible(desk);
        desk.getByText("Make an address").click();
        assertThat(desk.locator(".address")).containsText("/calendar/");
        Browser.assertFits(desk);
    }

    @Test
    void aLargeRoundHasOnlyTheRowsNearTheWindowInThePage() {
        StringBuilder people = new StringBuilder();
        for (int i = 0; i < 1_500; i++) {
            people.append(i == 0 ? "" : ",").append("{\"name\":\"Person ").append("%04d".formatted(i)).append("\",\"email\":\"person").append(i).append("@large.example.org\"}");
        }
        String sheet = "{\"title\":\"Large round\",\"deadlineDate\":\"" + LocalDate.now().plusDays(9) + "\",\"zone\":\"Europe/London\",\"folderPattern\":\"{round}\",\"namePattern\":\"{person}{ext}\","
                + "\"items\":[{\"title\":\"Paper\"}],\"people\":[" + people + "]}";
        long round = Api.json(api.post("/api/rounds", sheet)).path("head").path("id").asLong();
        api.post("/api/rounds/" + round + "/open", "{\"version\":1}");
        Page desk = desk("/rounds/" + round);
        assertThat(desk.locator("main tbody .person").first()).hasText("Person 0000");
        assertThat(desk.locator("main tbody tr").count()).isLessThan(80);
        assertThat(desk.locator("table")).hasAttribute("aria-rowcount", "1501");
        desk.evaluate("scrollTo(0, document.documentElement.scrollHeight)");
        assertThat(desk.locator("main tbody .person").last()).hasText("Person 1499");
        assertThat(desk.locator("main tbody tr").count()).isLessThan(80);
        api.act(round, "Person 1498", "NOTE", "\"text\":\"seen from afar\"");
        assertThat(desk.getByText("seen from afar")).isVisible();
        desk.keyboard().press("c");
        assertThat(desk.getByText("1500 people chosen")).isVisible();
        desk.evaluate("scrollTo(0, 0)");
        desk.locator(".bulk").getByText("Excuse", new Locator.GetByTextOptions().setExact(true)).click();
        button(desk, "Go on").click();
        assertThat(desk.getByText("0 of 0 baskets all in (0 %)")).isVisible();
        desk.locator(".said").last().getByText("Undo").click();
        assertThat(desk.getByText("0 of 1500 baskets all in (0 %)")).isVisible();
    }

    @Test
    void theStatusSheetIsMadeForPaper() {
        Page desk = desk("/rounds/" + api.round("River-fly") + "/status");
        assertThat(desk.getByText(Pattern.compile("^Still owed"))).isVisible();
        Browser.assertAccessible(desk);
        desk.emulateMedia(new Page.EmulateMediaOptions().setMedia(com.microsoft.playwright.options.Media.PRINT));
        assertThat(desk.locator(".bar")).not().isVisible();
        assertThat(desk.locator("table").first()).isVisible();
    }
}
