package oakbasket.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.google.gson.JsonObject;
import com.microsoft.playwright.CDPSession;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Request;
import com.microsoft.playwright.Response;
import java.net.http.HttpResponse;
import java.util.concurrent.atomic.AtomicReference;
import org.junit.jupiter.api.Test;

/** Passkeys, with the authenticator that Chromium pretends to have (the WebAuthn domain of its DevTools protocol): the whole of WebAuthn is the browser's, only the device is not real. */
class PasskeyJourneysTest extends Journey {

    /** A device that knows who holds it, or does not. */
    private static CDPSession device(Page page, boolean verifies) {
        CDPSession devtools = page.context().newCDPSession(page);
        devtools.send("WebAuthn.enable");
        JsonObject options = new JsonObject();
        options.addProperty("protocol", "ctap2");
        options.addProperty("transport", "internal");
        options.addProperty("hasResidentKey", true);
        options.addProperty("hasUserVerification", true);
        options.addProperty("isUserVerified", verifies);
        options.addProperty("automaticPresenceSimulation", true);
        JsonObject asked = new JsonObject();
        asked.add("options", options);
        devtools.send("WebAuthn.addVirtualAuthenticator", asked);
        return devtools;
    }

    /** A session of its own: signing out of it ends nobody else's. */
    private static Page ownDesk() {
        Page page = browser.page(1280, 800);
        page.navigate(app.url() + "/sign-in");
        page.getByLabel("E-mail").fill(Api.EMAIL);
        page.getByLabel("Password").fill(Api.PASSWORD);
        page.locator("button[type=submit]").click();
        page.locator(".bar").waitFor();
        page.navigate(app.url() + "/setup");
        return page;
    }

    /** In the bar at the top; the list of sessions has buttons of nearly the same name. */
    private static Locator out(Page page) {
        return page.getByText("Sign out", new Page.GetByTextOptions().setExact(true)).first();
    }

    private static void signOut(Page page) {
        out(page).click();
        assertThat(page.locator("h1")).containsText("Sign in");
    }

    @Test
    void aDeviceSignsInAloneAndOnceTakenAwayItDoesNot() {
        Page desk = ownDesk();
        device(desk, true);
        desk.locator("#passkey-label").fill("Robin’s laptop");
        desk.locator("#passkey-password").fill("not this one");
        button(desk, "Add a passkey").click();
        assertThat(desk.locator("#passkey-password-error")).not().isEmpty();
        desk.locator("#passkey-password").fill(Api.PASSWORD);
        button(desk, "Add a passkey").click();
        assertThat(desk.locator("[aria-labelledby=passkeys] li")).containsText("Robin’s laptop");
        assertThat(desk.locator("[aria-labelledby=passkeys] li")).containsText("not used yet");
        Browser.assertAccessible(desk);
        Browser.assertFits(desk);

        signOut(desk);
        Browser.assertAccessible(desk);
        AtomicReference<String> sent = new AtomicReference<>();
        desk.onRequest((Request request) -> {
            if (request.url().endsWith("/api/session/passkey")) {
                sent.set(request.postData());
            }
        });
        button(desk, "Sign in with a passkey").click();
        assertThat(out(desk)).isVisible();
        desk.navigate(app.url() + "/setup");
        assertThat(desk.locator("[aria-labelledby=passkeys] li")).containsText("last used");
        // What the device signed lets nobody in a second time.
        HttpResponse<byte[]> again = Api.stranger(app.url()).send("POST", "/api/session/passkey", sent.get().getBytes(), "Content-Type", "application/json");
        assertThat(again.statusCode()).as(new String(again.body())).isIn(403, 422);

        button(desk, "Take away Robin’s laptop").click();
        desk.locator(".el-message-box .el-button--primary").click();
        assertThat(desk.locator("[aria-labelledby=passkeys]")).containsText("None yet.");
        signOut(desk);
        Response refused = desk.waitForResponse("**/api/session/passkey", () -> button(desk, "Sign in with a passkey").click());
        assertThat(refused.status()).isEqualTo(401);
        assertThat(desk.locator(".signin")).containsText("This passkey does not let you in");
    }

    @Test
    void aDeviceThatDoesNotKnowWhoHoldsItMakesNone() {
        Page desk = ownDesk();
        device(desk, false);
        desk.locator("#passkey-label").fill("A device for anybody");
        desk.locator("#passkey-password").fill(Api.PASSWORD);
        button(desk, "Add a passkey").click();
        assertThat(desk.locator("#passkey-password-error")).containsText("No passkey was given");
        assertThat(desk.locator("[aria-labelledby=passkeys]")).containsText("None yet.");
    }
}
