package oakbasket.core.fault;

import java.util.List;

/**
 * What is wrong with one field, or odd about it.
 *
 * @param field the path of the field in what was typed, such as {@code items[0].title}
 * @param code names the fault; its words stand under it in the message files
 * @param arguments what the words name: numbers, or texts as they were typed
 */
public record Fault(String field, String code, List<Object> arguments) {

    public Fault {
        arguments = List.copyOf(arguments);
    }

    /** A fault of a field. */
    public static Fault of(String field, String code, Object... arguments) {
        return new Fault(field, code, List.of(arguments));
    }

    /** The same without its field. */
    public Remark remark() {
        return new Remark(code, arguments);
    }
}
