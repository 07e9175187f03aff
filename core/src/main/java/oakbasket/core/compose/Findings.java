package oakbasket.core.compose;

import java.time.DateTimeException;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import oakbasket.core.fault.Fault;
import org.jspecify.annotations.Nullable;

/** Gathers what keeps a sheet from being opened, and what is allowed but odd. */
final class Findings {

    private final List<Fault> errors = new ArrayList<>();
    private final List<Fault> oddities = new ArrayList<>();

    void error(String field, String code, Object... arguments) {
        errors.add(Fault.of(field, code, arguments));
    }

    void add(Fault fault) {
        errors.add(fault);
    }

    void odd(String field, String code, Object... arguments) {
        oddities.add(Fault.of(field, code, arguments));
    }

    void longest(String field, String text, int most) {
        if (text.length() > most) {
            error(field, "longest-has", most, text.length());
        }
    }

    /** A date or time as typed; null, and an error, when it is none. */
    <T> @Nullable T parse(String field, String text, Function<String, T> reader, String code) {
        try {
            return reader.apply(text.strip());
        } catch (DateTimeException wrong) {
            error(field, code);
            return null;
        }
    }

    /** How many errors there are so far. */
    int count() {
        return errors.size();
    }

    boolean any(String fieldStart) {
        return errors.stream().anyMatch(error -> error.field().startsWith(fieldStart));
    }

    List<Fault> errors() {
        return List.copyOf(errors);
    }

    List<Fault> oddities() {
        return List.copyOf(oddities);
    }
}
