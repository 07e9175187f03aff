package oakbasket.e2e;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.FilePayload;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfEnvironmentVariable;

/** Makes the pictures of the README; run by scripts/screenshots.sh. */
@EnabledIfEnvironmentVariable(named = "OAK_SCREENSHOTS", matches = "1")
class ScreenshotsTest {

    private static final Path FOLDER = Path.of("../docs/screenshots");

    @Test
    void makesThePictures() {
        try (PackagedApp app = new PackagedApp(PackagedApp.freshFolder(), "--oakbasket.demo=true", "--oakbasket.clock=2026-11-17T10:30:00Z",
                "--oakbasket.office=Fennbrook Catchment Partnership", "--oakbasket.post-office=true", "--oakbasket.mail-from=office@fennbrook.example.org",
                "--oakbasket.collecting-address=papers@fennbrook.example.org"); Browser browser = new Browser()) {
            Api api = new Api(app.url());
            Page desk = browser.desk(app);
            desk.locator(".columns").waitFor();
            shoot(desk, "today");
            desk.navigate(app.url() + "/rounds");
            desk.locator("table").waitFor();
            shoot(desk, "rounds");
            desk.navigate(app.url() + "/rounds/" + api.round("River-fly"));
            desk.locator("table").waitFor();
            desk.navigate(app.url() + "/rounds/" + api.round("Landowner"));
            desk.getByText("Imogen Sallow").click();
            desk.locator(".panel").getByLabel(Pattern.compile("^Show .*boundary")).click();
            desk.locator(".preview img").waitFor();
            desk.evaluate("scrollTo(0, 100)");
            shoot(desk, "round");
            desk.navigate(app.url() + "/rounds/" + api.round("Bankside") + "/sheet");
            desk.getByLabel("Type or paste people").fill("Ada Brook <ada.brook@example.org>\nBen at home");
            desk.getByText("Add these people").click();
            desk.getByText("1 person is asked").waitFor();
            desk.evaluate("document.querySelector('#part-1').scrollIntoView()");
            desk.waitForTimeout(5_000);
            shoot(desk, "compose");

            tracking(desk, api, app.url());

            Page sender = browser.page(1280, 800);
            sender.navigate(api.personalLink(api.round("Landowner"), "Imogen Sallow"));
            sender.getByLabel("Choose files for Signed access consent").setInputFiles(pdf("consent signed.pdf"));
            shoot(sender, "basket");
            Page phone = browser.page(390, 844, "America/New_York");
            phone.navigate(api.personalLink(api.round("Landowner"), "Imogen Sallow"));
            phone.locator("h2").first().waitFor();
            shoot(phone, "basket-phone");
            phone.navigate(app.url() + api.get("/api/parcels/1").path("ways").get(2).path("path").asString());
            phone.locator("li").first().waitFor();
            shoot(phone, "pickup-phone");
            desk.navigate(app.url() + "/team");
            desk.getByText("Jo Heron").first().waitFor();
            shoot(desk, "team");
            desk.navigate(app.url() + "/setup/brand");
            desk.getByLabel("How you can be reached").fill("1 Mill Lane, Fennbrook, 01632 960123");
            desk.getByLabel("Colour", new Page.GetByLabelOptions().setExact(true)).fill("#2f5d7c");
            desk.getByText("It can be read").waitFor();
            shoot(desk, "brand");
        }
    }

    private static void tracking(Page desk, Api api, String base) {
        long landowners = api.round("Landowner");
        desk.navigate(base + "/rounds/" + landowners + "/review");
        desk.locator(".look").waitFor();
        desk.keyboard().press("ArrowRight");
        desk.waitForTimeout(2_500);
        shoot(desk, "review");
        desk.navigate(base + "/contacts");
        desk.locator("table").waitFor();
        shoot(desk, "contacts");
        desk.navigate(base + "/post");
        desk.locator("tbody tr", new Page.LocatorOptions().setHasText("Reminder")).locator("button").nth(3).click();
        desk.locator(".sheet h2").waitFor();
        shoot(desk, "post");
        desk.navigate(base + "/links?find=placement&by=PERSON");
        desk.locator("main tbody .name").first().click();
        desk.getByText("QR code").first().click();
        desk.locator(".qr img").waitFor();
        shoot(desk, "links");
        desk.navigate(base + "/setup");
        desk.getByText("Office closed").first().waitFor();
        shoot(desk, "setup");
        desk.navigate(base + "/filing");
        desk.getByText("Change", new Page.GetByTextOptions().setExact(true)).first().click();
        desk.locator("#rule-1-place-folder").fill("Tracks/{received:yyyy}/{round}");
        desk.getByText("Try it on what is here").click();
        desk.locator(".trial .sums").waitFor();
        desk.locator(".trial").evaluate("part => part.scrollIntoView()");
        shoot(desk, "filing");
        desk.navigate(base + "/tray");
        desk.locator("li").filter(new Locator.FilterOptions().setHasText("by a rule")).first().locator("button").click();
        desk.locator(".preview img").waitFor();
        shoot(desk, "tray");
        desk.navigate(base + "/folders?path=River-fly%20survey%20sheets/Dorothy%20Lamb");
        desk.locator("tbody .name").first().click();
        desk.locator(".preview").locator("img, table, svg").first().waitFor();
        shoot(desk, "folders");
        desk.navigate(base + "/parcels");
        desk.getByText("Countersigned copies, winter planting").click();
        desk.locator("tbody tr").first().waitFor();
        shoot(desk, "parcel");
        desk.navigate(base + "/exchanges");
        desk.getByText("Boundary deed, Oakley weir").click();
        desk.locator(".table li").first().waitFor();
        shoot(desk, "exchange");
    }

    private static void shoot(Page page, String name) {
        page.evaluate("document.fonts.ready");
        page.waitForTimeout(300);
        page.screenshot(new Page.ScreenshotOptions().setPath(FOLDER.resolve(name + ".png")));
    }

    private static FilePayload pdf(String name) {
        return new FilePayload(name, "application/pdf", "%PDF-1.4\nsigned\n%%EOF".getBytes(StandardCharsets.US_ASCII));
    }
}
