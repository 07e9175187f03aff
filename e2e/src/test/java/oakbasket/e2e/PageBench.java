package oakbasket.e2e;

import com.google.gson.JsonObject;
import com.microsoft.playwright.CDPSession;
import com.microsoft.playwright.Page;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.atomic.AtomicLong;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfEnvironmentVariable;

/** The measurement behind bench/page.sh: weight and time of the page of senders on a poor line. */
@EnabledIfEnvironmentVariable(named = "OAK_BENCH", matches = "page")
class PageBench {

    private static final int TIMES = 7;
    private static final int POOR_BYTES_PER_SECOND = 400_000 / 8;
    private static final int POOR_MILLISECONDS = 400;

    @Test
    void page() {
        try (PackagedApp app = new PackagedApp(PackagedApp.freshFolder(), "--oakbasket.demo=true"); Browser browser = new Browser()) {
            Api api = new Api(app.url());
            String link = api.personalLink(api.round("Landowner"), "Ada Brook");
            AtomicLong bytes = new AtomicLong();
            List<Double> free = new ArrayList<>();
            List<Double> poor = new ArrayList<>();
            for (int i = 0; i < TIMES; i++) {
                free.add(usable(browser, link, -1, 0, bytes));
                poor.add(usable(browser, link, POOR_BYTES_PER_SECOND, POOR_MILLISECONDS, bytes));
            }
            Collections.sort(free);
            Collections.sort(poor);
            System.out.printf(Locale.ROOT, "%npage of senders: %.1f KiB over the line until usable%n", bytes.get() / 1024.0);
            System.out.printf(Locale.ROOT, "usable, median of %d: %.0f ms without limits, %.0f ms at 400 kbit/s and 400 ms (worst %.0f)%n", TIMES, free.get(TIMES / 2), poor.get(TIMES / 2), poor.get(TIMES - 1));
            System.out.printf(Locale.ROOT, "the line itself needs %.0f ms for these bytes and one round trip%n", bytes.get() * 1000.0 / POOR_BYTES_PER_SECOND + POOR_MILLISECONDS);
        }
    }

    private static double usable(Browser browser, String link, int bytesPerSecond, int latency, AtomicLong bytes) {
        Page page = browser.page(390, 844);
        CDPSession line = page.context().newCDPSession(page);
        line.send("Network.enable");
        JsonObject limits = new JsonObject();
        limits.addProperty("offline", false);
        limits.addProperty("latency", latency);
        limits.addProperty("downloadThroughput", bytesPerSecond);
        limits.addProperty("uploadThroughput", bytesPerSecond);
        line.send("Network.emulateNetworkConditions", limits);
        AtomicLong sum = new AtomicLong();
        line.on("Network.loadingFinished", event -> sum.addAndGet((long) event.get("encodedDataLength").getAsDouble()));
        long begun = System.nanoTime();
        page.navigate(link, new Page.NavigateOptions().setWaitUntil(com.microsoft.playwright.options.WaitUntilState.COMMIT));
        page.locator("footer button[type=submit]").waitFor();
        double took = (System.nanoTime() - begun) / 1e6;
        bytes.set(sum.get());
        page.context().close();
        return took;
    }
}
