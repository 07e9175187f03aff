package oakbasket.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.FilePayload;
import java.io.ByteArrayOutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Comparator;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.Test;

/** What happens to files as they arrive, as sender and coordinator see it: archives opened, malware kept apart, an address confirmed. */
class ArrivalJourneysTest extends Journey {

    private static final String EICAR = "X5O!P%@AP[4\\PZX54(P^)7CC)7}$" + "EICAR-STANDARD-ANTIVIRUS-TEST-FILE!$H+H*";
    private static final Pattern CODE = Pattern.compile("Subject: (\\d{6}) is your code");

    private static FilePayload archive(String... names) throws Exception {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(bytes)) {
            for (String name : names) {
                zip.putNextEntry(new ZipEntry(name));
                zip.write(pdf(name, name).buffer);
            }
        }
        return new FilePayload("papers.zip", "application/zip", bytes.toByteArray());
    }

    private static String mailedCode() throws Exception {
        try (Stream<Path> mails = Files.list(app.data.resolve("outbox"))) {
            Path newest = mails.filter(path -> path.getFileName().toString().startsWith("oak-sender")).max(Comparator.comparing(path -> path.toFile().lastModified())).orElseThrow();
            Matcher code = CODE.matcher(Files.readString(newest));
            assertThat(code.find()).as("a code in %s", newest).isTrue();
            return code.group(1);
        }
    }

    @Test
    void aSenderPacksTheirPapersAndConfirmsWhoTheyAre() throws Exception {
        String sheet = """
                {"title":"Packed papers","deadlineDate":"2099-06-30","zone":"Europe/London","folderPattern":"{round}/{person}","namePattern":"{person} - {original}{ext}","openLink":true,
                 "items":[{"title":"Maps","maxFiles":5,"kinds":["PDF"]}],"people":[{"name":"Wren Sallow","email":"wren.sallow@example.org"}]}""";
        long round = Api.json(api.post("/api/rounds", sheet)).path("head").path("id").asLong();
        Page desk = desk("/rounds/" + round + "/sheet");
        desk.getByLabel("More 1. Document").click();
        Fields.choose(desk, "A ZIP that is sent", "is opened into its files and dropped");
        open(desk);
        assertThat(desk.locator("h1")).hasText("Packed papers");

        Page sender = openLink(round);
        assertThat(sender.getByText("A ZIP is opened into its files.")).isVisible();
        sender.getByLabel("Your name").fill("Wren Sallow");
        sender.getByLabel("Your e-mail address").fill("wren.sallow@example.org");
        filesFor(sender, "Maps").setInputFiles(archive("north/upper.pdf", "north/lower.pdf", "setup.exe"));
        send(sender);
        assertThat(sender.locator("h1")).hasText("Thank you. Not everything could be taken.");
        assertThat(sender.getByRole(AriaRole.ALERT).first()).containsText("2 files were received and 1 was not: setup.exe (Programs are not taken)");
        assertThat(sender.locator(".receipt ol li")).hasCount(2);
        assertThat(sender.getByText("Mail me the receipt")).hasCount(0);
        assertThat(api.row(round, "Wren Sallow").path("files").asInt()).as("anybody can type her address").isZero();

        button(sender, "Send me a code").click();
        Locator code = sender.getByLabel("Code", new Page.GetByLabelOptions().setExact(true));
        code.fill("12");
        button(sender, "Confirm").click();
        assertThat(sender.locator("#confirm-error")).hasText("Type the 6 digits from the mail.");
        String right = mailedCode();
        code.fill((right.charAt(0) == '1' ? "2" : "1") + right.substring(1));
        button(sender, "Confirm").click();
        assertThat(sender.locator("#confirm-error")).containsText("4 tries are left");
        Browser.assertAccessible(sender);
        code.fill(right);
        code.press("Enter");
        assertThat(sender.locator(".confirm")).containsText("Your address is confirmed.");
        sender.getByText("Mail me the receipt: w…@example.org").click();
        assertThat(sender.getByText("The receipt is on its way to w…@example.org.")).isVisible();
        assertThat(api.row(round, "Wren Sallow").path("files").asInt()).isEqualTo(2);

        desk.navigate(app.url() + "/rounds/" + round + "?basket=" + api.row(round, "Wren Sallow").path("id"));
        assertThat(desk.locator(".panel .identity").first()).hasText("confirmed");
        assertThat(desk.locator(".panel .story")).containsText("Address confirmed by a code: wren.sallow@example.org");
        Browser.assertAccessible(desk);
    }

    @Test
    void malwareIsKeptApartAndSomebodyDecides() {
        long round = openRound("Logs with a catch", "");
        Page sender = browser.page(390, 844);
        sender.navigate(api.personalLink(round, "Tamsin Withy"));
        filesFor(sender, "Anything else").setInputFiles(new FilePayload[] {file("catch.txt", EICAR), file("fine.txt", "fine")});
        send(sender);
        assertThat(sender.locator(".card").nth(1)).containsText("“catch.txt” was not taken: the office's scanner found malware in it.");
        Browser.assertAccessible(sender);

        Page desk = desk("/");
        desk.getByText("Malware was found in 1 file").first().click();
        assertThat(desk.locator("h1")).hasText("Quarantine");
        Locator row = desk.locator("tr").filter(new Locator.FilterOptions().setHasText("catch.txt"));
        assertThat(row).containsText("Found: EICAR-Test-File");
        assertThat(row).containsText("identified");
        Browser.assertAccessible(desk);
        row.getByLabel("Let in catch.txt").click();
        row.getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("Let in").setExact(true)).click();
        assertThat(row).hasCount(0);
        assertThat(api.row(round, "Tamsin Withy").path("files").asInt()).isEqualTo(2);

        sender.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Try again")).first().click();
        assertThat(sender.locator(".card").nth(1)).containsText("was not taken");
        row.getByLabel("Destroy catch.txt").click();
        assertThat(row).containsText("This cannot be undone");
        row.getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("Destroy").setExact(true)).click();
        assertThat(row).hasCount(0);
    }
}
