package oakbasket.e2e;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.IntFunction;

/** Figures of one kind at several sizes, and by what factor each grows from one size to the next. */
final class Figures {

    private static final int WARM = 8;

    private Figures() {
    }

    /** Measures at each of the sizes that the environment names, and prints as it goes. */
    static void atSizes(String usual, String title, IntFunction<Map<String, Double>> measure) {
        Map<String, Double> before = Map.of();
        for (String size : System.getenv().getOrDefault("SIZES", usual).split(",")) {
            Map<String, Double> now = measure.apply(Integer.parseInt(size.strip()));
            System.out.printf("%n%s %s%n", size, title);
            for (Map.Entry<String, Double> one : now.entrySet()) {
                System.out.printf(Locale.ROOT, "  %-42s %8.0f%s%n", one.getKey(), one.getValue(), before.containsKey(one.getKey()) ? String.format(Locale.ROOT, "   x %.1f", one.getValue() / before.get(one.getKey())) : "");
            }
            before = now;
        }
    }

    /** The 95th percentile of so many answers, in milliseconds; those before are not counted. */
    static double percentile(Api api, String path, int times) {
        List<Double> took = new ArrayList<>();
        for (int i = 0; i < times + WARM; i++) {
            long begun = System.nanoTime();
            api.get(path);
            if (i >= WARM) {
                took.add((System.nanoTime() - begun) / 1e6);
            }
        }
        Collections.sort(took);
        return took.get((int) Math.ceil(0.95 * took.size()) - 1);
    }
}
