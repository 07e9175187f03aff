package oakbasket.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Route;
import com.microsoft.playwright.assertions.LocatorAssertions;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.FilePayload;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Random;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.JsonNode;

/** The page of senders in their hands: languages, many files at once, and everything that goes wrong on a phone. */
class BasketPageJourneysTest extends Journey {

    private static final LocatorAssertions.IsVisibleOptions SOON = new LocatorAssertions.IsVisibleOptions().setTimeout(20_000);

    private static Page sender(long round, String person) {
        Page page = browser.page(390, 844);
        page.navigate(api.personalLink(round, person));
        return page;
    }

    private static Locator items(Page page) {
        return page.locator(".card");
    }

    /** The whole way in two languages that write differently: passcode, who one is, a refusal, sending, receipt. */
    @ParameterizedTest(name = "{0}")
    @CsvSource(delimiter = '|', value = {
        "Polski | pl | ltr | Hasło | To nie jest właściwe hasło | Imię i nazwisko | Adres e-mail | Prosimy podać imię i nazwisko | Wyślij 2 pliki | Wyślij 5 plików | Dziękujemy. Wszystko dotarło.",
        "العربية | ar | rtl | رمز المرور | ليس هذا رمز المرور | اسمك | بريدك الإلكتروني | اكتب اسمك | إرسال ملفين | إرسال 5 ملفات | شكرًا لك. وصل كل شيء."})
    void theWholeWayInAnotherLanguage(String name, String tag, String direction, String passcode, String wrongPasscode, String who, String email, String nameMissing, String sendTwo, String sendFive,
            String thanks) {
        long round = openRound("Logs in " + tag, "kingfisher");
        Page sender = openLink(round);
        sender.locator("select").selectOption(tag);
        assertThat(sender.locator("html")).hasAttribute("dir", direction);
        sender.getByLabel(passcode).fill("heron-on-ice");
        sender.locator("button[type=submit]").click();
        assertThat(sender.locator("#passcode-error")).containsText(wrongPasscode);
        Browser.assertAccessible(sender);
        sender.getByLabel(passcode).fill("kingfisher");
        sender.locator("button[type=submit]").click();
        assertThat(sender.locator("h1")).hasText("Logs in " + tag);
        FilePayload[] files = new FilePayload[5];
        for (int i = 0; i < files.length; i++) {
            files[i] = pdf("log" + i + ".pdf", tag + i);
        }
        Locator anything = sender.locator(".card").nth(1).locator("input[type=file]").first();
        anything.setInputFiles(new FilePayload[] {files[0], files[1]});
        assertThat(sender.locator("footer button[type=submit]")).containsText(sendTwo);
        anything.setInputFiles(new FilePayload[] {files[2], files[3], files[4]});
        assertThat(sender.locator("footer button[type=submit]")).containsText(sendFive);
        send(sender);
        assertThat(sender.locator("#who-name-error")).containsText(nameMissing);
        sender.getByLabel(who).fill("Ola " + tag);
        sender.getByLabel(email).fill("ola." + tag + "@example.org");
        Browser.assertAccessible(sender);
        send(sender);
        assertThat(sender.locator("h1")).hasText(thanks);
        Browser.assertAccessible(sender);
        assertThat(api.row(round, "Ola " + tag).path("files").asInt()).isEqualTo(5);
    }

    /** Each state of the page in each language; a hurried stranger may read any of them with a screen reader. */
    @ParameterizedTest(name = "{0}")
    @ValueSource(strings = {"en", "es", "fr", "de", "pl", "ar"})
    void everyStateIsAccessibleInEveryLanguage(String language) {
        long round = openRound("States in " + language, "kingfisher");
        Page sender = openLink(round);
        sender.locator("select").selectOption(language);
        assertThat(sender.locator("html")).hasAttribute("lang", language);
        Browser.assertAccessible(sender);
        sender.locator("input").first().fill("kingfisher");
        sender.locator("button[type=submit]").click();
        assertThat(sender.locator(".card")).hasCount(2);
        Browser.assertAccessible(sender);
        sender.locator("#who-name").fill("Somebody");
        sender.locator("#who-email").fill("somebody." + language + "@example.org");
        Locator files = sender.locator(".card").nth(1).locator("input[type=file]").first();
        files.setInputFiles(new FilePayload[] {pdf("log.pdf", language), file("wrong.pdf", "no PDF")});
        Browser.assertAccessible(sender);
        sender.context().setOffline(true);
        send(sender);
        assertThat(sender.locator("footer progress")).isVisible();
        Browser.assertAccessible(sender);
        sender.context().setOffline(false);
        Locator refused = sender.locator(".card .error", new Page.LocatorOptions().setHasText("wrong.pdf"));
        refused.waitFor();
        Browser.assertAccessible(sender);
        sender.locator(".card li").filter(new Locator.FilterOptions().setHasText("wrong.pdf")).locator("button.plain, button").last().click();
        send(sender);
        assertThat(sender.locator(".receipt .code")).isVisible();
        Browser.assertAccessible(sender);
        sender.navigate(app.url() + "/b/nothing-here");
        sender.locator("h1").waitFor();
        Browser.assertAccessible(sender);
    }

    @Test
    void severalFilesAtOnceGoWhereTheyBelongAndCanBeMoved() {
        long round = openRound("Sorted logs", "");
        Page sender = sender(round, "Rowan Sallow");
        sender.getByLabel("Choose all files").setInputFiles(new FilePayload[] {pdf("learning log May.pdf", "a"), new FilePayload("bank.gpx", "application/gpx+xml", "<gpx/>".getBytes(StandardCharsets.UTF_8))});
        assertThat(items(sender).nth(0)).containsText("learning log May.pdf");
        assertThat(items(sender).nth(1)).containsText("bank.gpx");
        sender.getByLabel("To which document does learning log May.pdf belong?").selectOption("Anything else");
        assertThat(items(sender).nth(1)).containsText("learning log May.pdf");
        sender.getByLabel("To which document does learning log May.pdf belong?").selectOption("Learning log");
        sender.getByLabel("A word to the office (optional)").fill("The track follows.");
        send(sender);
        assertThat(sender.locator(".code")).isVisible();
        Page desk = desk("/rounds/" + round + "?basket=" + api.row(round, "Rowan Sallow").path("id").asLong());
        assertThat(desk.locator(".panel")).containsText("The sender wrote: The track follows.");
    }

    @Test
    void whatIsDoneIsOneLineAndWhatIsMissingStandsFirst() {
        long round = openRound("Folded logs", "");
        Page sender = sender(round, "Rowan Sallow");
        sender.getByLabel("Choose files for Learning log").setInputFiles(pdf("log.pdf", "first"));
        send(sender);
        assertThat(sender.locator(".code")).isVisible();
        sender.getByText("Add another document").click();
        assertThat(items(sender).nth(0)).containsText("Anything else");
        assertThat(sender.getByLabel("Choose files for Learning log")).hasCount(0);
        sender.getByLabel("Show: Learning log").click();
        assertThat(sender.getByLabel("Choose files for Learning log")).hasCount(1);
        sender.getByLabel("PDF: which ones?").click();
        assertThat(items(sender).nth(1)).containsText("Names ending in .pdf");
        Browser.assertAccessible(sender);
    }

    /** A tab that dies before anything was sent: the files and what was typed are there again. */
    @Test
    void whatWasChosenAndTypedOutlivesTheTab() {
        long round = openRound("Kept logs", "");
        Page first = openLink(round);
        String link = first.url();
        first.getByLabel("Your name").fill("Kit Alder");
        first.getByLabel("Your e-mail address").fill("kit.alder@example.net");
        first.getByLabel("A word to the office (optional)").fill("From the barn");
        first.getByLabel("Choose files for Learning log").setInputFiles(pdf("kept.pdf", "kept"));
        assertThat(first.locator("footer button[type=submit]")).containsText("Send 1 file");
        first.waitForFunction("() => new Promise(done => { const open = indexedDB.open('oak-basket'); open.onsuccess = () => { const all = open.result.transaction('files').objectStore('files').getAll(); "
                + "all.onsuccess = () => done(all.result.some(one => one.name === 'kept.pdf' && one.content)) } })");
        Page second = first.context().newPage();
        first.close(new Page.CloseOptions().setRunBeforeUnload(false));
        second.navigate(link);
        assertThat(second.getByText("Kept from before: 1 file. It is not sent yet.")).isVisible();
        assertThat(second.getByLabel("Your name")).hasValue("Kit Alder");
        assertThat(second.getByLabel("A word to the office (optional)")).hasValue("From the barn");
        Page shared = second.context().newPage();
        shared.navigate(link);
        assertThat(shared.getByText("Not yours? Remove all of it")).isVisible();
        shared.close();
        send(second);
        assertThat(second.locator(".code")).isVisible();
        second.navigate(link);
        assertThat(second.getByLabel("Your name")).hasValue("");
        assertThat(second.getByText("Kept from before")).hasCount(0);
        assertThat(api.row(round, "Kit Alder").path("files").asInt()).isEqualTo(1);
    }

    /** A tab that dies while it sends: opened again it goes on by itself, from where it was. */
    @Test
    void whatWasUnderWayGoesOnByItself() throws Exception {
        long round = openRound("Going on", "");
        Page first = browser.page(1280, 800);
        String link = api.personalLink(round, "Rowan Sallow");
        first.navigate(link);
        Browser.slowDown(first, 3_000_000);
        byte[] content = new byte[16_000_000];
        new Random(7).nextBytes(content);
        Path film = Files.write(PackagedApp.freshFolder().resolve("film.bin"), content);
        first.getByLabel("Choose files for Anything else").setInputFiles(film);
        assertThat(first.locator("footer button[type=submit]")).containsText("Send 1 file");
        send(first);
        first.waitForFunction("() => { const p = document.querySelector('footer progress'); return p && p.value > 6e6 }");
        Page second = first.context().newPage();
        first.close(new Page.CloseOptions().setRunBeforeUnload(false));
        second.navigate(link);
        assertThat(second.locator(".code")).isVisible(SOON);
        JsonNode file = api.get("/api/baskets/" + api.row(round, "Rowan Sallow").path("id").asLong()).path("files").get(0);
        assertThat(file.path("bytes").asLong()).isEqualTo(content.length);
        assertThat(file.path("sha256").asString()).isEqualTo(java.util.HexFormat.of().formatHex(java.security.MessageDigest.getInstance("SHA-256").digest(content)));
    }

    /** What the browser could not keep is asked for by its name, and known by its content whatever it is called then. */
    @Test
    void whatTheBrowserCouldNotKeepIsPickedAgain() {
        long round = openRound("Picked again", "");
        Page sender = sender(round, "Rowan Sallow");
        sender.getByLabel("Choose files for Learning log").setInputFiles(pdf("once.pdf", "the content"));
        sender.waitForFunction("() => new Promise(done => { const open = indexedDB.open('oak-basket'); open.onsuccess = () => { const files = open.result.transaction('files', 'readwrite').objectStore('files'); "
                + "files.getAll().onsuccess = (e) => { const one = e.target.result.find(one => one.name === 'once.pdf'); if (!one || !one.print) return done(false); delete one.content; files.put(one).onsuccess = () => done(true) } } })");
        sender.reload();
        assertThat(items(sender).nth(0)).containsText("Choose once.pdf again");
        send(sender);
        assertThat(sender.getByText("Please remove or replace the marked files first.")).isVisible();
        sender.getByLabel("Your browser could not keep this file. Choose once.pdf again, and it goes on where it stopped.").setInputFiles(pdf("once.pdf", "OTHER 7 99"));
        assertThat(items(sender).nth(0)).containsText("another file than the one that was begun");
        sender.getByLabel("Your browser could not keep this file. Choose once.pdf again, and it goes on where it stopped.").setInputFiles(pdf("renamed.pdf", "the content"));
        assertThat(items(sender).nth(0)).not().containsText("again, and it goes on");
        send(sender);
        assertThat(sender.locator(".code")).isVisible();
    }

    @Test
    void aPhoneWithoutANetworkSaysSoAndWaits() {
        long round = openRound("Tunnel logs", "");
        Page sender = sender(round, "Rowan Sallow");
        sender.getByLabel("Choose files for Learning log").setInputFiles(pdf("tunnel.pdf", "x"));
        sender.context().setOffline(true);
        send(sender);
        assertThat(sender.getByText("You are offline.")).isVisible();
        sender.waitForTimeout(1_500);
        sender.context().setOffline(false);
        assertThat(sender.locator(".code")).isVisible(SOON);
        assertThat(api.row(round, "Rowan Sallow").path("files").asInt()).isEqualTo(1);
    }

    /** What sends, and the receipt with its texts, come after the page; a line that breaks in between keeps nobody from sending. */
    @Test
    void whatComesAfterThePageIsAskedForAgain() {
        long round = openRound("Late logs", "");
        Pattern afterwards = Pattern.compile(".*/assets/(send-files|ReceiptView|en)-[^/]*\\.js");
        Page sender = browser.page(390, 844);
        sender.route(afterwards, Route::abort);
        sender.navigate(api.personalLink(round, "Rowan Sallow"));
        sender.getByLabel("Choose files for Learning log").setInputFiles(pdf("late.pdf", "x"));
        send(sender);
        assertThat(sender.getByText("The connection broke.")).isVisible();
        assertThat(api.row(round, "Rowan Sallow").path("files").asInt()).isZero();
        sender.unroute(afterwards);
        assertThat(sender.locator(".code")).isVisible(SOON);
        assertThat(sender.locator("h1")).hasText("Thank you. Everything has arrived.");
        assertThat(api.row(round, "Rowan Sallow").path("files").asInt()).isEqualTo(1);
    }

    /** WCAG 2.2, 1.4.10: nothing is cut or scrolls sideways at 320 pixels, which is also 1280 at 400 %. */
    @ParameterizedTest
    @CsvSource({"en", "ar", "de"})
    void nothingIsCutAt320Pixels(String tag) {
        long round = openRound("Narrow logs with a rather long title for the upper and the lower Fenn " + tag, "");
        Page sender = browser.page(320, 640);
        sender.navigate(api.personalLink(round, "Rowan Sallow"));
        sender.locator("select").first().selectOption(tag);
        sender.locator(".card input[type=file]").first().setInputFiles(pdf("a_very_long_file_name_without_any_space_that_goes_on_and_on_2026.pdf", "x"));
        assertThat(sender.locator("html")).hasAttribute("lang", tag);
        assertThat((Integer) sender.evaluate("document.documentElement.scrollWidth")).isLessThanOrEqualTo(320);
        Browser.assertAccessible(sender);
    }

    @Test
    void aReceiptIsSavedAsText() throws Exception {
        long round = openRound("Receipts", "");
        Page sender = sender(round, "Rowan Sallow");
        sender.getByLabel("Choose files for Learning log").setInputFiles(pdf("log.pdf", "receipt"));
        send(sender);
        String code = sender.locator(".code").textContent();
        String saved = Files.readString(sender.waitForDownload(() -> sender.getByText("Save as text").click()).path());
        assertThat(saved).contains(code, "log.pdf", "SHA-256 " + sender.locator(".sha").textContent(), "Receipts");
        assertThat(sender.getByRole(AriaRole.HEADING)).hasText("Thank you. Everything has arrived.");

        Page anybody = browser.page(390, 844);
        anybody.navigate(app.url() + "/receipt");
        anybody.getByLabel("Receipt code").fill(code.toLowerCase(java.util.Locale.ROOT));
        anybody.getByLabel("Choose the file").setInputFiles(pdf("whatever it is called.pdf", "receipt"));
        button(anybody, "Check").click();
        assertThat(anybody.getByText("Yes. This very file was received")).isVisible();
        Browser.assertAccessible(anybody);
        anybody.getByLabel("Choose the file").setInputFiles(pdf("log.pdf", "another one"));
        button(anybody, "Check").click();
        assertThat(anybody.getByText("No. With this receipt no file")).isVisible();
        anybody.getByLabel("Receipt code").fill(code.substring(0, 13) + "?");
        button(anybody, "Check").click();
        assertThat(anybody.getByText("This is not a receipt code")).isVisible();
    }
}
