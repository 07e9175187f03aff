package oakbasket.server.account;

import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/** Says in two words which browser a session is in, by what it says of itself (RFC 9110, 10.1.5). It proves nothing. */
final class BrowserName {

    private static final int LONGEST = 60;
    /** The first that stands in the text counts: most browsers name others too. */
    private static final List<Map.Entry<String, String>> BROWSERS = List.of(Map.entry("Edg", "Edge"), Map.entry("OPR/", "Opera"), Map.entry("Firefox/", "Firefox"), Map.entry("Chrome/", "Chrome"), Map.entry("Safari/", "Safari"));
    private static final List<Map.Entry<String, String>> SYSTEMS = List.of(Map.entry("Android", "Android"), Map.entry("iPhone", "iPhone"), Map.entry("iPad", "iPad"), Map.entry("Windows", "Windows"),
            Map.entry("Mac OS X", "Mac"), Map.entry("Linux", "Linux"));

    private BrowserName() {
    }

    static String of(@Nullable String agent) {
        if (agent == null) {
            return "";
        }
        String name = Stream.of(BROWSERS, SYSTEMS).flatMap(list -> list.stream().filter(one -> agent.contains(one.getKey())).map(Map.Entry::getValue).limit(1)).collect(Collectors.joining(", "));
        String plain = name.isEmpty() ? agent.replaceAll("[^ -~]", "") : name;
        return plain.length() > LONGEST ? plain.substring(0, LONGEST) : plain;
    }
}
