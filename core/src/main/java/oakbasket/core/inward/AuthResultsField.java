package oakbasket.core.inward;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

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
    private static final String VERSION = "1";

    /** Reads a field, unfolded. Empty when it breaks the grammar anywhere, or is of a version that is not known (RFC 8601, 2.5). */
    static Optional<AuthResultsField> parse(String field) {
        if (field.length() > LONGEST) {
            return Optional.empty();
        }
        try {
            return Optional.of(new Reading(field).field());
        } catch (NotInGrammar broken) {
            return Optional.empty();
        }
    }

    List<Result> of(String method) {
        return results.stream().filter(result -> result.method().equals(method)).toList();
    }

    private static final class NotInGrammar extends Exception {
        private static final long serialVersionUID = 1;

        NotInGrammar(int at) {
            super("not in the grammar from character " + at + " on", null, false, false);
        }
    }

    /** Goes through a field once, from its beginning to its end. */
    private static final class Reading {

        /** RFC 2045, 5.1. */
        private static final String TSPECIALS = "()<>@,;:\\\"/[]?=";
        /** What ends a value that stands without quotation marks. Local parts hold more than a token may, such as {@code prvs=1a=ada}. */
        private static final String ENDS_VALUE = "()<>,;\\\"[]@";

        private final String text;
        private int at;

        Reading(String text) {
            this.text = text;
        }

        AuthResultsField field() throws NotInGrammar {
            blank();
            String server = peek() == '"' ? quoted() : token();
            blank();
            if (Character.isDigit(peek()) && !digits().equals(VERSION)) {
                throw broken();
            }
            blank();
            List<Result> results = new ArrayList<>();
            while (at < text.length()) {
                expect(';');
                blank();
                if (at == text.length() && !results.isEmpty()) {
                    // Some servers end the last result as they end the others (common practice, no source).
                    break;
                }
                Result result = result();
                if (result != null) {
                    results.add(result);
                } else if (!results.isEmpty() || at < text.length()) {
                    throw broken();
                }
            }
            return new AuthResultsField(server, List.copyOf(results));
        }

        /** A result with what it rests on; null for {@code none}, with which a server says that it looked for nothing. */
        private @Nullable Result result() throws NotInGrammar {
            String method = keyword();
            blank();
            if (method.equals("none") && at == text.length()) {
                return null;
            }
            if (peek() == '/') {
                at++;
                blank();
                digits();
                blank();
            }
            expect('=');
            blank();
            String value = keyword();
            List<Property> properties = new ArrayList<>();
            while (spaced() && at < text.length() && peek() != ';') {
                String type = keyword();
                blank();
                if (peek() == '.') {
                    at++;
                    blank();
                    String name = keyword();
                    blank();
                    expect('=');
                    properties.add(new Property(type, name, value()));
                } else {
                    expect('=');
                    value();
                }
            }
            return new Result(method, value, List.copyOf(properties));
        }

        private String value() throws NotInGrammar {
            blank();
            StringBuilder value = new StringBuilder();
            if (peek() == '"') {
                value.append(quoted());
            } else {
                value.append(bare());
            }
            if (peek() == '@') {
                at++;
                value.append('@').append(peek() == '[' ? literal() : bare());
            }
            if (value.isEmpty()) {
                throw broken();
            }
            return value.toString();
        }

        /** A domain literal (RFC 5321, 4.1.3), which stands for no domain. */
        private String literal() throws NotInGrammar {
            int from = at;
            while (peek() != ']') {
                if (at >= text.length() || peek() == ';') {
                    throw broken();
                }
                at++;
            }
            at++;
            return text.substring(from, at);
        }

        private String bare() {
            int from = at;
            while (at < text.length() && peek() > ' ' && peek() != 127 && ENDS_VALUE.indexOf(peek()) < 0) {
                at++;
            }
            return text.substring(from, at);
        }

        private String token() throws NotInGrammar {
            int from = at;
            while (at < text.length() && peek() > ' ' && peek() != 127 && TSPECIALS.indexOf(peek()) < 0) {
                at++;
            }
            if (at == from) {
                throw broken();
            }
            return text.substring(from, at);
        }

        /** RFC 5321, 4.1.2; with the underscore that is met in the wild. */
        private String keyword() throws NotInGrammar {
            int from = at;
            while (at < text.length() && (Character.isLetterOrDigit(peek()) && peek() < 128 || peek() == '-' || peek() == '_')) {
                at++;
            }
            if (at == from) {
                throw broken();
            }
            return text.substring(from, at).toLowerCase(Locale.ROOT);
        }

        private String digits() throws NotInGrammar {
            int from = at;
            while (at < text.length() && peek() >= '0' && peek() <= '9') {
                at++;
            }
            if (at == from) {
                throw broken();
            }
            return text.substring(from, at);
        }

        private String quoted() throws NotInGrammar {
            StringBuilder inside = new StringBuilder();
            for (at++; at < text.length(); at++) {
                char c = peek();
                if (c == '"') {
                    at++;
                    return inside.toString();
                }
                if (c == '\\' && ++at == text.length()) {
                    throw broken();
                }
                inside.append(peek());
            }
            throw broken();
        }

        /** Passes over space and comments, and says whether there was any. */
        private boolean spaced() throws NotInGrammar {
            int from = at;
            blank();
            return at > from || at == text.length() || peek() == ';';
        }

        private void blank() throws NotInGrammar {
            while (at < text.length()) {
                if (peek() == '(') {
                    comment();
                } else if (peek() == ' ' || peek() == '\t' || peek() == '\r' || peek() == '\n') {
                    at++;
                } else {
                    return;
                }
            }
        }

        private void comment() throws NotInGrammar {
            int depth = 0;
            do {
                if (at >= text.length()) {
                    throw broken();
                }
                switch (peek()) {
                    case '(' -> depth++;
                    case ')' -> depth--;
                    case '\\' -> at++;
                    default -> {
                    }
                }
                at++;
            } while (depth > 0);
        }

        private void expect(char wanted) throws NotInGrammar {
            if (peek() != wanted) {
                throw broken();
            }
            at++;
        }

        private char peek() {
            return at < text.length() ? text.charAt(at) : '\0';
        }

        private NotInGrammar broken() {
            return new NotInGrammar(at);
        }
    }
}
