package oakbasket.core.inward;

import java.util.List;
import java.util.Locale;
import java.util.Optional;

/**
 * One field {@code Authentication-Results}, read by the grammar of RFC 8601, 2.2: quoted strings (RFC 5322, 3.2.4), comments within comments and escapes (3.2.2) are what they are, wherever the grammar allows them, and
 * nothing inside them is ever taken for a result.
 *
 * <p>Wider than the grammar in one thing: a word with a value and no type before it, such as {@code action=none}, is passed over, because a widespread server writes it (common practice, no source).
 *
 * @param serverId who wrote it
 * @param results what it says, in its order
 */
record AuthResultsField(String serverId, List<Result> results) {

    /**
     * What one method found.
     *
     * @param method in small letters, such as {@code dmarc}
     * @param value in small letters, such as {@code pass}
     */
    record Result(String method, String value, List<Property> properties) {

        /** The value of a property; empty where it is missing, or is there with two different values. */
        String property(String type, String name) {
            List<String> found = properties.stream().filter(one -> one.type().equals(type) && one.name().equals(name)).map(one -> one.value().toLowerCase(Locale.ROOT)).distinct().toList();
            return found.size() == 1 ? found.get(0) : "";
        }
    }

    /** Something the result rests on, such as {@code header.from=example.org}. */
    record Property(String type, String name, String value) {
    }

    /** A longer field is none of an honest server. */
    private static final int LONGEST = 100_000;

    /** Reads a field, unfolded. Empty when it breaks the grammar anywhere, or is of a version that is not known (RFC 8601, 2.5). */
    static Optional<AuthResultsField> parse(String field) {
        if (field.length() > LONGEST) {
            return Optional.empty();
        }
        try {
            return Optional.of(new AuthResultsReading(field).field());
        } catch (AuthResultsReading.NotInGrammar broken) {
            return Optional.empty();
        }
    }

    List<Result> of(String method) {
        return results.stream().filter(result -> result.method().equals(method)).toList();
    }
}
