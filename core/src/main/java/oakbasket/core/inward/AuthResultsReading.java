package oakbasket.core.inward;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;

/** Reads a field {@code Authentication-Results} by the grammar of RFC 8601, 2.2: once, from its beginning to its end. */
final class AuthResultsReading {

    /** The field breaks the grammar. */
    static final class NotInGrammar extends Exception {
            private static final long serialVersionUID = 1;

            NotInGrammar(int at) {
                super("not in the grammar from character " + at + " on", null, false, false);
            }
        }

    /** RFC 2045, 5.1. */
    private static final String TSPECIALS = "()<>@,;:\\\"/[]?=";
    /** What ends a value that stands without quotation marks. Local parts hold more than a token may, such as {@code prvs=1a=ada}. */
    private static final String ENDS_VALUE = "()<>,;\\\"[]@";

    private static final String VERSION = "1";

    private final String text;
    private int at;

    AuthResultsReading(String text) {
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
        List<AuthResultsField.Result> results = new ArrayList<>();
        while (at < text.length()) {
            expect(';');
            blank();
            if (at == text.length() && !results.isEmpty()) {
                // Some servers end the last result as they end the others (common practice, no source).
                break;
            }
            AuthResultsField.Result result = result();
            if (result != null) {
                results.add(result);
            } else if (!results.isEmpty() || at < text.length()) {
                throw broken();
            }
        }
        return new AuthResultsField(server, List.copyOf(results));
    }

    /** A result with what it rests on; null for {@code none}, with which a server says that it looked for nothing. */
    private AuthResultsField.@Nullable Result result() throws NotInGrammar {
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
        List<AuthResultsField.Property> properties = new ArrayList<>();
        while (spaced() && at < text.length() && peek() != ';') {
            String type = keyword();
            blank();
            if (peek() == '.') {
                at++;
                blank();
                String name = keyword();
                blank();
                expect('=');
                properties.add(new AuthResultsField.Property(type, name, value()));
            } else {
                expect('=');
                value();
            }
        }
        return new AuthResultsField.Result(method, value, List.copyOf(properties));
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
