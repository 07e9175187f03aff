package oakbasket.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import com.google.gson.JsonObject;
import com.microsoft.playwright.Browser.NewContextOptions;
import com.microsoft.playwright.BrowserContext;
import com.microsoft.playwright.BrowserType;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import com.microsoft.playwright.options.ReducedMotion;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** Debian's Chromium without a screen, and what every journey does with it. */
final class Browser implements AutoCloseable {

    private static final List<String> ARGUMENTS = List.of("--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking",
            "--disable-component-update", "--disable-sync");

    private static final String HOME = "Europe/London";

    private final Playwright playwright = Playwright.create(new Playwright.CreateOptions().setEnv(Map.of("PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD", "1")));
    private final com.microsoft.playwright.Browser chromium = playwright.chromium()
            .launch(new BrowserType.LaunchOptions().setExecutablePath(Path.of("/usr/bin/chromium")).setArgs(ARGUMENTS));
    private final Map<String, String> sessions = new HashMap<>();
    private final List<String> complaints = new java.util.concurrent.CopyOnWriteArrayList<>();

    /** A fresh page with cookies of its own. */
    Page page(int width, int height) {
        return page(width, height, HOME);
    }

    Page page(int width, int height, String zone) {
        return page(options(width, height, zone));
    }

    private static NewContextOptions options(int width, int height, String zone) {
        return new NewContextOptions().setViewportSize(width, height).setTimezoneId(zone).setLocale("en-GB").setAcceptDownloads(true).setHasTouch(width < 600)
                .setIsMobile(width < 600).setReducedMotion(ReducedMotion.REDUCE).setPermissions(List.of("clipboard-read", "clipboard-write"));
    }

    private Page page(NewContextOptions options) {
        BrowserContext context = chromium.newContext(options);
        context.setDefaultTimeout(20_000);
        Page page = context.newPage();
        page.onConsoleMessage(message -> {
            if (message.type().equals("error") && !message.text().contains("Failed to load resource")) {
                complaints.add(message.text());
            }
        });
        page.onPageError(complaints::add);
        page.onRequest(request -> {
            if (!request.url().matches("(http://localhost:\\d+/|data:|blob:).*")) {
                complaints.add("asked the network for " + request.url());
            }
        });
        return page;
    }

    /** A window on somebody else's site, whose complaints are not ours. */
    Page elsewhere() {
        return chromium.newContext(options(800, 900, HOME)).newPage();
    }

    /** A desk with a session of its own, which may be ended without anybody else noticing. */
    Page ownDesk(PackagedApp app, String path) {
        Page page = page(options(1280, 800, HOME).setStorageState(signedIn(app.url())));
        page.navigate(app.url() + path);
        page.locator(".bar").waitFor();
        return page;
    }

    /** One more window of the same session. */
    Page window(Page other, String url) {
        Page page = other.context().newPage();
        page.navigate(url);
        return page;
    }

    /** A desk on a tablet, for fingers. */
    Page tablet(PackagedApp app, String path) {
        String session = sessions.computeIfAbsent(app.url(), this::signedIn);
        Page page = page(options(1024, 768, HOME).setHasTouch(true).setStorageState(session));
        page.navigate(app.url() + path);
        page.locator(".bar").waitFor();
        return page;
    }

    /** A desk that has signed in. */
    Page desk(PackagedApp app) {
        return desk(app, "/");
    }

    /** A desk at this address: the first one of an application signs in at its door, those after it are further windows of the same session. */
    Page desk(PackagedApp app, String path) {
        String session = sessions.computeIfAbsent(app.url(), this::signedIn);
        Page page = page(options(1280, 800, HOME).setStorageState(session));
        page.navigate(app.url() + path);
        page.locator(".bar").waitFor();
        return page;
    }

    private String signedIn(String url) {
        Page page = page(1280, 800);
        page.navigate(url + "/");
        page.getByLabel("E-mail").fill(Api.EMAIL);
        page.getByLabel("Password").fill(Api.PASSWORD);
        page.locator("button[type=submit]").click();
        page.locator(".bar").waitFor();
        String session = page.context().storageState();
        page.context().close();
        return session;
    }

    /** Ends all windows that are open. */
    void closePages() {
        List.copyOf(chromium.contexts()).forEach(BrowserContext::close);
    }

    /** Fails when a script broke, the content security policy had to stop something, or a page asked for anything that does not ship with it. */
    void assertNoComplaints() {
        assertThat(complaints).isEmpty();
    }

    /** Source: axe-core, rules of WCAG 2.0 to 2.2, levels A and AA. */
    static void assertAccessible(Page page) {
        try {
            page.evaluate(Files.readString(Path.of("../web/node_modules/axe-core/axe.min.js")));
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
        Object violations = page.evaluate("""
                async () => (await axe.run(document, {runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa']}))
                    .violations.map(v => v.id + ': ' + v.nodes.map(n => n.html.slice(0, 160) + ' – ' + n.failureSummary).join(' | '))""");
        assertThat((List<?>) violations).as("accessibility of %s", page.url()).isEmpty();
    }

    /** Gives a page a slow line upwards, in bytes per second. */
    static void slowDown(Page page, int bytesPerSecond) {
        var chromium = page.context().newCDPSession(page);
        chromium.send("Network.enable");
        JsonObject conditions = new JsonObject();
        conditions.addProperty("offline", false);
        conditions.addProperty("latency", 0);
        conditions.addProperty("downloadThroughput", -1);
        conditions.addProperty("uploadThroughput", bytesPerSecond);
        chromium.send("Network.emulateNetworkConditions", conditions);
    }

    /** Nothing sticks out sideways. */
    static void assertFits(Page page) {
        assertThat(page.evaluate("document.documentElement.scrollWidth <= document.documentElement.clientWidth")).as("fits the width").isEqualTo(true);
    }

    @Override
    public void close() {
        chromium.close();
        playwright.close();
    }
}
