package oakbasket.core.inward;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/** The header of a message, in its order (RFC 5322, 2.2); names in whatever case. */
public final class MailHeaders {

    private final Map<String, List<String>> fields = new LinkedHashMap<>();

    /** Adds a field, unfolded. */
    public void add(String name, String value) {
        fields.computeIfAbsent(name.strip().toLowerCase(Locale.ROOT), one -> new ArrayList<>()).add(value.replaceAll("\\s+", " ").strip());
    }

    /** The first field of a name; empty where there is none. */
    public String first(String name) {
        List<String> all = all(name);
        return all.isEmpty() ? "" : all.get(0);
    }

    /** All fields of a name, the topmost first. */
    public List<String> all(String name) {
        return fields.getOrDefault(name.toLowerCase(Locale.ROOT), List.of());
    }

    /** Whether there is a field of a name. */
    public boolean has(String name) {
        return fields.containsKey(name.toLowerCase(Locale.ROOT));
    }
}
