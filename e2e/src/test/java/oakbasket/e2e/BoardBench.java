package oakbasket.e2e;

import com.microsoft.playwright.Page;
import java.net.http.HttpResponse;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfEnvironmentVariable;
import tools.jackson.databind.JsonNode;

/** The measurement behind bench/board.sh: the board at 500, 5,000 and 50,000 baskets of twelve items, from the server and in a browser. */
@EnabledIfEnvironmentVariable(named = "OAK_BENCH", matches = "board")
class BoardBench {

    private static final int TIMES = 40;
    private static final int ARRIVALS = 15;

    private record Figures(int baskets, double p50, double p95, int kib, double firstPaint, double arrivalServer, double arrivalSeen, double letters, double scroll) {
    }

    @Test
    void board() {
        List<Figures> all = new ArrayList<>();
        String sizes = System.getenv().getOrDefault("SIZES", "500,5000,50000");
        for (String size : sizes.split(",")) {
            all.add(measure(Integer.parseInt(size.strip())));
        }
        System.out.println("\nbaskets x 12 | server p50 ms | p95 ms | answer KiB (gzip) | first usable paint ms | one row, server ms | arrival seen ms | letters of the round, server ms | 95th percentile of frames while scrolling ms");
        Figures before = null;
        for (Figures f : all) {
            System.out.printf(Locale.ROOT, "%12d | %13.0f | %6.0f | %17d | %21.0f | %18.1f | %15.0f | %8.0f | %8.0f%n", f.baskets, f.p50, f.p95, f.kib, f.firstPaint, f.arrivalServer, f.arrivalSeen, f.letters, f.scroll);
            if (before != null) {
                double more = (double) f.baskets / before.baskets;
                System.out.printf(Locale.ROOT, "   x %.0f more: p95 x %.1f, answer x %.1f, paint x %.1f, one row x %.2f, arrival x %.2f%n", more, f.p95 / before.p95, (double) f.kib / before.kib,
                        f.firstPaint / before.firstPaint, f.arrivalServer / before.arrivalServer, f.arrivalSeen / before.arrivalSeen);
            }
            before = f;
        }
    }

    private static Figures measure(int people) {
        try (PackagedApp app = new PackagedApp(PackagedApp.freshFolder(), "--oakbasket.demo=true"); Browser browser = new Browser()) {
            long round = LargeRound.make(app, people);
            Api api = new Api(app.url());
            String path = "/api/rounds/" + round + "/board";
            int bytes = 0;
            List<Double> times = new ArrayList<>();
            for (int i = 0; i < TIMES + 15; i++) {
                long begun = System.nanoTime();
                HttpResponse<byte[]> answer = api.send("GET", path, null, "Accept-Encoding", "gzip");
                if (i >= 15) {
                    times.add(milliseconds(begun));
                }
                bytes = answer.body().length;
            }
            Collections.sort(times);
            List<Double> letters = new ArrayList<>();
            for (int i = 0; i < TIMES; i++) {
                long begun = System.nanoTime();
                api.get("/api/rounds/" + round + "/letters");
                letters.add(milliseconds(begun));
            }
            JsonNode rows = api.get(path).path("rows");
            Page desk = browser.desk(app);
            List<Double> paints = new ArrayList<>();
            for (int i = 0; i < 5; i++) {
                long begun = System.nanoTime();
                desk.navigate(app.url() + "/rounds/" + round);
                desk.locator("tbody .person").first().waitFor();
                paints.add(milliseconds(begun));
            }
            List<Double> row = new ArrayList<>();
            List<Double> seen = new ArrayList<>();
            for (int i = 0; i < ARRIVALS; i++) {
                JsonNode one = rows.get(i * (rows.size() / ARRIVALS));
                String note = "note " + i + " of " + people;
                desk.getByLabel("Find a person").fill(one.path("email").asString());
                desk.locator("tbody .person").first().waitFor();
                String act = "{\"kind\":\"NOTE\",\"text\":\"" + note + "\",\"baskets\":[{\"id\":" + one.path("id") + ",\"version\":" + one.path("version") + "}]}";
                api.post("/api/rounds/" + round + "/acts", act);
                long begun = System.nanoTime();
                desk.getByText(note).waitFor();
                seen.add(milliseconds(begun));
                long asked = System.nanoTime();
                api.get("/api/baskets/" + one.path("id") + "/row");
                row.add(milliseconds(asked));
            }
            desk.getByLabel("Find a person").fill("");
            desk.mouse().move(1, 1);
            double frame = ((Number) desk.evaluate("""
                    () => new Promise(done => { let last = performance.now(), n = 0; const frames = []
                      const step = now => { frames.push(now - last); last = now; scrollBy(0, 150); ++n < 120 ? requestAnimationFrame(step) : done(frames.sort((a, b) => a - b)[Math.floor(frames.length * 0.95)]) }
                      requestAnimationFrame(now => { last = now; requestAnimationFrame(step) }) })""")).doubleValue();
            return new Figures(people, times.get(TIMES / 2), times.get(TIMES * 95 / 100), bytes / 1024, median(paints), median(row), median(seen), median(letters), frame);
        }
    }

    private static double median(List<Double> values) {
        Collections.sort(values);
        return values.get(values.size() / 2);
    }

    private static double milliseconds(long since) {
        return (System.nanoTime() - since) / 1e6;
    }
}
