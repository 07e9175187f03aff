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
    /** The person's whole name. */
    PERSON,
    /** The given names, as {@link PersonName} parts a name. */
    FIRST,
    /** The family name. */
    LAST,
    ORGANISATION,
    EMAIL,
    /** The external reference. */
    REFERENCE,
    /** Who the sender said they were, as typed on an open link. */
    SENDER,
    ITEM,
    /** The kind of file in words. */
    KIND,
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
    /** The how-manieth file of this item in this basket; takes zeros for as many digits as it should have. */
    NUMBER;

    /** As written in a pattern. */
    public String written() {
        return name().toLowerCase(Locale.ROOT);
    }

    /** Whether a format may follow after a colon. */
    public boolean takesFormat() {
        return isDate() || this == NUMBER;
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
