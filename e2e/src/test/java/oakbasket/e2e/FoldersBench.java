package oakbasket.e2e;

import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfEnvironmentVariable;

/** The measurement behind bench/folders.sh: one folder with very many files, listed, sorted, searched, and asked far back. */
@EnabledIfEnvironmentVariable(named = "OAK_BENCH", matches = "folders")
class FoldersBench {

    private static final int TIMES = 40;
    private static final int WARM = 8;

    @Test
    void folders() {
        Map<String, Double> before = Map.of();
        for (String size : System.getenv().getOrDefault("SIZES", "5000,50000").split(",")) {
            Map<String, Double> now = measure(Integer.parseInt(size.strip()));
            System.out.printf("%n%s files in a folder, milliseconds at the 95th percentile%n", size);
            for (Map.Entry<String, Double> one : now.entrySet()) {
                System.out.printf(Locale.ROOT, "  %-42s %8.0f%s%n", one.getKey(), one.getValue(), before.containsKey(one.getKey()) ? String.format(Locale.ROOT, "   x %.1f", one.getValue() / before.get(one.getKey())) : "");
            }
            before = now;
        }
    }

    private static Map<String, Double> measure(int files) {
        try (PackagedApp app = new PackagedApp(PackagedApp.freshFolder(), "--oakbasket.demo=true")) {
            Api api = new Api(app.url());
            ManyFiles.send(api, app.url(), "Many", files);
            String folder = "/api/folders?path=Many/" + ManyFiles.PERSON;
            Map<String, Double> figures = new LinkedHashMap<>();
            figures.put("the first page", percentile(api, folder));
            figures.put("sorted by size, the largest first", percentile(api, folder + "&by=BYTES&down=true"));
            figures.put("sorted by when it changed", percentile(api, folder + "&by=CHANGED&down=true"));
            figures.put("the last page", percentile(api, folder + "&from=" + (files - 50)));
            figures.put("found by a part of the name", percentile(api, folder + "&find=le" + (files - 7)));
            figures.put("of one kind", percentile(api, folder + "&kind=DOCUMENT"));
            return figures;
        }
    }

    private static double percentile(Api api, String path) {
        List<Double> times = new ArrayList<>();
        for (int i = 0; i < TIMES + WARM; i++) {
            long begun = System.nanoTime();
            api.get(path);
            if (i >= WARM) {
                times.add((System.nanoTime() - begun) / 1e6);
            }
        }
        Collections.sort(times);
        return times.get((int) Math.ceil(0.95 * times.size()) - 1);
    }
}
