package oakbasket.server.rulebreakers.one;

import java.nio.file.Path;
import oakbasket.server.decode.work.Glance;
import oakbasket.server.decode.work.LookAt;
import org.jsoup.Jsoup;

/** Decodes what came from a stranger in the server itself, in two ways. */
class OwnDecoder {

    String text(String html) {
        return Jsoup.parse(html).text();
    }

    Glance glance(Path file) {
        return new LookAt("a.rtf", "text/rtf").work(file);
    }
}
