package oakbasket.core.naming;

import java.util.Arrays;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;

/** The fields that a naming pattern may hold in braces. */
public enum NameField {
    /** The round's title. */
    ROUND,
    /** The person's first group. */
    GROUP,
    PERSON,
    ORGANISATION,
    EMAIL,
    /** The external reference. */
    REFERENCE,
    ITEM,
    /** The name the sender's file had, without its extension. */
    ORIGINAL,
    /** The extension with its dot. */
    EXT,
    /** When it was received, in the round's zone; takes a date format. */
    RECEIVED,
    /** The round's deadline, in its zone; takes a date format. */
    DEADLINE,
    /** The receipt code. */
    RECEIPT,
    /** The how-manieth file of this item in this basket. */
    NUMBER;

    /** As written in a pattern. */
    public String written() {
        return name().toLowerCase(Locale.ROOT);
    }

    boolean isDate() {
        return this == RECEIVED || this == DEADLINE;
    }

    static Optional<NameField> find(String written) {
        return Arrays.stream(values()).filter(field -> field.written().equals(written)).findFirst();
    }

    static String allWritten() {
        return Arrays.stream(values()).map(field -> "{" + field.written() + "}").collect(Collectors.joining(" "));
    }
}
