package oakbasket.e2e;

import com.google.gson.JsonObject;
import com.microsoft.playwright.CDPSession;
import com.microsoft.playwright.Page;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.ToDoubleFunction;
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
            // The application still makes the data of the demonstration, on the same cores as the browser.
            for (long begun = System.nanoTime(); System.nanoTime() - begun < REST_NANOS;) {
                usable(browser, link, -1, 0, bytes);
            }
            List<Usable> free = new ArrayList<>();
            List<Usable> poor = new ArrayList<>();
            for (int i = 0; i < TIMES; i++) {
                free.add(usable(browser, link, -1, 0, bytes));
                poor.add(usable(browser, link, POOR_BYTES_PER_SECOND, POOR_MILLISECONDS, bytes));
            }
            System.out.printf(Locale.ROOT, "%npage of senders: %.1f KiB over the line until usable%n", bytes.get() / 1024.0);
            System.out.printf(Locale.ROOT, "usable, median of %d, by the clock of the page: %.0f ms without limits, %.0f ms at 400 kbit/s and 400 ms (worst %.0f)%n", TIMES, median(free, Usable::inside),
                    median(poor, Usable::inside), poor.stream().mapToDouble(Usable::inside).max().orElseThrow());
            System.out.printf(Locale.ROOT, "as the program sees it that drives the browser: %.0f ms and %.0f ms%n", median(free, Usable::outside), median(poor, Usable::outside));
            System.out.printf(Locale.ROOT, "the line itself needs %.0f ms for these bytes and one round trip%n", bytes.get() * 1000.0 / POOR_BYTES_PER_SECOND + POOR_MILLISECONDS);
        }
    }

    private static final long REST_NANOS = 25_000_000_000L;
    /** Notes when the picture is made that follows upon what sends being there. */
    private static final String WATCH = """
            new MutationObserver((_, watch) => {
              if (!document.querySelector('footer button[type=submit]')) return
              watch.disconnect()
              requestAnimationFrame(() => setTimeout(() => (window.usableAfter = performance.now())))
            }).observe(document, { childList: true, subtree: true })
            """;

    private static final int PHOTOS = 300;
    private static final int PHOTO_BYTES = 200_000;
    private static final int MIDDLING_BYTES_PER_SECOND = 10_000_000 / 8;
    private static final int MIDDLING_MILLISECONDS = 200;

    /** As many photos as somebody brings home from a day outside, from pressing Send to the receipt, beside what the line itself needs for their bytes. */
    @Test
    void photos() throws Exception {
        Path folder = PackagedApp.freshFolder();
        Random random = new Random(11);
        Path[] photos = new Path[PHOTOS];
        for (int i = 0; i < PHOTOS; i++) {
            byte[] content = new byte[PHOTO_BYTES];
            random.nextBytes(content);
            System.arraycopy(new byte[] {(byte) 0xff, (byte) 0xd8, (byte) 0xff, (byte) 0xe0}, 0, content, 0, 4);
            photos[i] = Files.write(folder.resolve("photo" + i + ".jpg"), content);
        }
        try (PackagedApp app = new PackagedApp(PackagedApp.freshFolder(), "--oakbasket.demo=true"); Browser browser = new Browser()) {
            Api api = new Api(app.url());
            String sheet = """
                    {"title":"Photos","deadlineDate":"2099-06-30","zone":"Europe/London","folderPattern":"{round}/{person}","namePattern":"{person} - {item}{ext}",
                     "items":[{"title":"Photos","maxFiles":300,"kinds":["IMAGE"]}],"people":[{"name":"Ada Brook","email":"ada.photos@example.org"}]}""";
            long round = Api.json(api.post("/api/rounds", sheet)).path("head").path("id").asLong();
            api.post("/api/rounds/" + round + "/open", "{\"version\":1}");
            Page page = browser.page(390, 844);
            page.navigate(api.personalLink(round, "Ada Brook"));
            page.locator(".card input[type=file]").first().setInputFiles(photos);
            page.getByText("Send 300 files").waitFor();
            page.waitForTimeout(5_000);
            limit(page, MIDDLING_BYTES_PER_SECOND, MIDDLING_MILLISECONDS);
            long begun = System.nanoTime();
            page.locator("footer button[type=submit]").click();
            page.locator(".receipt").waitFor(new com.microsoft.playwright.Locator.WaitForOptions().setTimeout(300_000));
            double took = (System.nanoTime() - begun) / 1e9;
            double line = (double) PHOTOS * PHOTO_BYTES / MIDDLING_BYTES_PER_SECOND + MIDDLING_MILLISECONDS / 1e3;
            System.out.printf(Locale.ROOT, "%n%d photos of %d KB at 10 Mbit/s and 200 ms: %.1f s, the line itself needs %.1f s, ratio %.2f; %d arrived%n", PHOTOS, PHOTO_BYTES / 1000, took, line,
                    took / line, api.row(round, "Ada Brook").path("files").asInt());
        }
    }

    /** From the beginning of the navigation to the first picture with what sends, by the page's own clock; and from the order to go there until that was noticed. In milliseconds. */
    private record Usable(double inside, double outside) {
    }

    private static double median(List<Usable> all, ToDoubleFunction<Usable> which) {
        return all.stream().mapToDouble(which).sorted().skip(all.size() / 2).findFirst().orElseThrow();
    }

    private static Usable usable(Browser browser, String link, int bytesPerSecond, int latency, AtomicLong bytes) {
        Page page = browser.page(390, 844);
        CDPSession line = limit(page, bytesPerSecond, latency);
        AtomicLong sum = new AtomicLong();
        line.on("Network.loadingFinished", event -> sum.addAndGet((long) event.get("encodedDataLength").getAsDouble()));
        page.addInitScript(WATCH);
        long begun = System.nanoTime();
        page.navigate(link, new Page.NavigateOptions().setWaitUntil(com.microsoft.playwright.options.WaitUntilState.COMMIT));
        page.locator("footer button[type=submit]").waitFor();
        double outside = (System.nanoTime() - begun) / 1e6;
        bytes.set(sum.get());
        double inside = ((Number) page.waitForFunction("() => window.usableAfter").jsonValue()).doubleValue();
        page.context().close();
        return new Usable(inside, outside);
    }

    private static CDPSession limit(Page page, int bytesPerSecond, int latency) {
        CDPSession line = page.context().newCDPSession(page);
        line.send("Network.enable");
        JsonObject limits = new JsonObject();
        limits.addProperty("offline", false);
        limits.addProperty("latency", latency);
        limits.addProperty("downloadThroughput", bytesPerSecond);
        limits.addProperty("uploadThroughput", bytesPerSecond);
        line.send("Network.emulateNetworkConditions", limits);
        return line;
    }
}
