package oakbasket.core.fault;

import java.util.List;

/**
 * Something to be told to a person, by its code.
 *
 * @param code names it; its words stand under it in the message files. Empty when there is nothing to tell
 * @param arguments what the words name: numbers, or texts as they were typed
 */
public record Remark(String code, List<Object> arguments) {

    /** Nothing to tell. */
    public static final Remark NONE = new Remark("", List.of());

    public Remark {
        arguments = List.copyOf(arguments);
    }

    /** A remark with this code. */
    public static Remark of(String code, Object... arguments) {
        return new Remark(code, List.of(arguments));
    }

    /** Whether there is nothing to tell. */
    public boolean isNone() {
        return code.isEmpty();
    }

    /** The same as a fault of a field. */
    public Fault at(String field) {
        return new Fault(field, code, arguments);
    }
}
