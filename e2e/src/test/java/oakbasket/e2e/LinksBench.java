package oakbasket.e2e;

import java.util.LinkedHashMap;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfEnvironmentVariable;

/** The measurement behind bench/links.sh: every link as a list, and what is done to all of them. */
@EnabledIfEnvironmentVariable(named = "OAK_BENCH", matches = "links")
class LinksBench {

    private static final int TIMES = 25;

    @Test
    void links() {
        Figures.atSizes("5000,50000", "links, milliseconds", LinksBench::measure);
    }

    private static Map<String, Double> measure(int people) {
        try (PackagedApp app = new PackagedApp(PackagedApp.freshFolder(), "--oakbasket.demo=true")) {
            long round = LargeRound.make(app, people);
            Api api = new Api(app.url());
            Map<String, Double> figures = new LinkedHashMap<>();
            figures.put("first page, 95th percentile", Figures.percentile(api, "/api/links", TIMES));
            figures.put("found by a name, 95th percentile", Figures.percentile(api, "/api/links?find=olwen", TIMES));
            figures.put("sorted by size, 95th percentile", Figures.percentile(api, "/api/links?by=BYTES&down=true", TIMES));
            figures.put("the last page, 95th percentile", Figures.percentile(api, "/api/links?by=PERSON&from=" + (people - 50), TIMES));
            figures.put("Today, 95th percentile", Figures.percentile(api, "/api/today", TIMES));
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

    private static double milliseconds(long begun) {
        return (System.nanoTime() - begun) / 1e6;
    }
}
