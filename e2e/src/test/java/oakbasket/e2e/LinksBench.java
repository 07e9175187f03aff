package oakbasket.e2e;

import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfEnvironmentVariable;

/** The measurement behind bench/links.sh: every link as a list, and what is done to all of them. */
@EnabledIfEnvironmentVariable(named = "OAK_BENCH", matches = "links")
class LinksBench {

    private static final int TIMES = 25;
    private static final int WARM = 8;

    @Test
    void links() {
        Map<String, Double> before = Map.of();
        for (String size : System.getenv().getOrDefault("SIZES", "5000,50000").split(",")) {
            Map<String, Double> now = measure(Integer.parseInt(size.strip()));
            System.out.printf("%n%s links, milliseconds%n", size);
            for (Map.Entry<String, Double> one : now.entrySet()) {
                System.out.printf(Locale.ROOT, "  %-42s %8.0f%s%n", one.getKey(), one.getValue(), before.containsKey(one.getKey()) ? String.format(Locale.ROOT, "   x %.1f", one.getValue() / before.get(one.getKey())) : "");
            }
            before = now;
        }
    }

    private static Map<String, Double> measure(int people) {
        try (PackagedApp app = new PackagedApp(PackagedApp.freshFolder(), "--oakbasket.demo=true")) {
            long round = LargeRound.make(app, people);
            Api api = new Api(app.url());
            Map<String, Double> figures = new LinkedHashMap<>();
            figures.put("first page, 95th percentile", percentile(api, "/api/links"));
            figures.put("found by a name, 95th percentile", percentile(api, "/api/links?find=olwen"));
            figures.put("sorted by size, 95th percentile", percentile(api, "/api/links?by=BYTES&down=true"));
            figures.put("the last page, 95th percentile", percentile(api, "/api/links?by=PERSON&from=" + (people - 50)));
            figures.put("Today, 95th percentile", percentile(api, "/api/today"));
            long begun = System.nanoTime();
            String all = "{\"kind\":\"PAUSE\",\"all\":{\"find\":\"\",\"listing\":null,\"round\":" + round + "}}";
            long act = Api.json(api.post("/api/links/acts", all)).path("act").asLong();
            figures.put("pausing all, once", milliseconds(begun));
            begun = System.nanoTime();
            api.post("/api/links/acts/" + act + "/undo", "");
            figures.put("undoing that, once", milliseconds(begun));
            return figures;
        }
    }

    private static double percentile(Api api, String path) {
        List<Double> times = new ArrayList<>();
        for (int i = 0; i < TIMES + WARM; i++) {
            long begun = System.nanoTime();
            api.get(path);
            if (i >= WARM) {
                times.add(milliseconds(begun));
            }
        }
        Collections.sort(times);
        return times.get((int) Math.ceil(0.95 * times.size()) - 1);
    }

    private static double milliseconds(long begun) {
        return (System.nanoTime() - begun) / 1e6;
    }
}
