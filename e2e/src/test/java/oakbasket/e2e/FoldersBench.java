package oakbasket.e2e;

import java.util.LinkedHashMap;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfEnvironmentVariable;

/** The measurement behind bench/folders.sh: one folder with very many files, listed, sorted, searched, and asked far back. */
@EnabledIfEnvironmentVariable(named = "OAK_BENCH", matches = "folders")
class FoldersBench {

    private static final int TIMES = 40;

    @Test
    void folders() {
        Figures.atSizes("5000,50000", "files in a folder, milliseconds at the 95th percentile", FoldersBench::measure);
    }

    private static Map<String, Double> measure(int files) {
        try (PackagedApp app = new PackagedApp(PackagedApp.freshFolder(), "--oakbasket.demo=true")) {
            Api api = new Api(app.url());
            ManyFiles.send(api, app.url(), "Many", files);
            String folder = "/api/folders?path=Many/" + ManyFiles.PERSON;
            Map<String, Double> figures = new LinkedHashMap<>();
            figures.put("the first page", Figures.percentile(api, folder, TIMES));
            figures.put("sorted by size, the largest first", Figures.percentile(api, folder + "&by=BYTES&down=true", TIMES));
            figures.put("sorted by when it changed", Figures.percentile(api, folder + "&by=CHANGED&down=true", TIMES));
            figures.put("the last page", Figures.percentile(api, folder + "&from=" + (files - 50), TIMES));
            figures.put("found by a part of the name", Figures.percentile(api, folder + "&find=le" + (files - 7), TIMES));
            figures.put("of one kind", Figures.percentile(api, folder + "&kind=DOCUMENT", TIMES));
            return figures;
        }
    }
}
