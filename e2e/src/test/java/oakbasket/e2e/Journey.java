package oakbasket.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.FilePayload;
import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.extension.ExtendWith;

/**
 * What all journeys share: the demo in one application, one browser, and one caller that prepares and looks. What a journey changes stays for those after
 * it, in whatever order they come; so a journey that counts files or people counts those of a round or a person it has for itself.
 */
@ExtendWith(Stage.class)
abstract class Journey {

    static PackagedApp app;
    static Browser browser;
    static Api api;

    /** A desk that has signed in, at this address. */
    static Page desk(String path) {
        return browser.desk(app, path);
    }

    static Locator button(Page page, String name) {
        return page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(name).setExact(true));
    }

    /** The name of a document on the sheet, by its place from 1. */
    static Locator document(Page desk, int n) {
        return desk.getByLabel(n + ". Document", new Page.GetByLabelOptions().setExact(true));
    }

    /** Chooses what stands in the menu of an open basket. */
    static void fromMenu(Page desk, String what) {
        Locator panel = desk.locator(".panel");
        panel.getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("More").setExact(true)).click();
        panel.getByRole(AriaRole.MENUITEM).getByText(what, new Locator.GetByTextOptions().setExact(true)).click();
    }

    /** Opens the composed round, having read what that will do. */
    static void open(Page desk) {
        button(desk, "Open the round").click();
        button(desk, "Open it now").click();
    }

    /** What takes files for an item, unfolded where the item is done. */
    static Locator filesFor(Page sender, String item) {
        sender.locator(".card").first().waitFor();
        Locator folded = sender.getByLabel("Show: " + item);
        if (folded.count() > 0) {
            folded.click();
        }
        return sender.getByLabel("Choose files for " + item);
    }

    /** Presses what sends the chosen files. */
    static void send(Page sender) {
        sender.locator("footer button[type=submit]").click();
    }

    static FilePayload file(String name, String content) {
        return new FilePayload(name, "application/octet-stream", content.getBytes(StandardCharsets.ISO_8859_1));
    }

    static FilePayload pdf(String name, String content) {
        return new FilePayload(name, "application/pdf", ("%PDF-1.4\n% " + content + "\n%%EOF").getBytes(StandardCharsets.ISO_8859_1));
    }

    /** A phone that has opened the open link of a round. */
    static Page openLink(long round) {
        Page sender = browser.page(390, 844);
        sender.navigate(api.get("/api/rounds/" + round + "/link").path("url").asString());
        return sender;
    }

    /** A round with an open link, for two people of whom the demo knows nothing; an empty passcode means none is asked. */
    static long openRound(String title, String passcode) {
        String sheet = """
                {"title":"%s","deadlineDate":"2099-06-30","zone":"Europe/London","folderPattern":"{round}/{person}","namePattern":"{person} - {item}{ext}","openLink":true,"passcode":"%s",
                 "items":[{"title":"Learning log","maxFiles":3,"kinds":["PDF"]},{"title":"Anything else","required":false,"maxFiles":5,"kinds":[]}],
                 "people":[{"name":"Tamsin Withy","email":"tamsin.withy@example.org"},{"name":"Rowan Sallow","email":"rowan.sallow@example.org"}]}""".formatted(title, passcode);
        long id = Api.json(api.post("/api/rounds", sheet)).path("head").path("id").asLong();
        assertThat(api.post("/api/rounds/" + id + "/open", "{\"version\":1}").statusCode()).as("opening %s", title).isEqualTo(204);
        return id;
    }
}
