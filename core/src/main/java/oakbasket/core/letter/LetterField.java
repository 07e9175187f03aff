package oakbasket.core.letter;

import java.util.Arrays;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;

/** What can stand in braces in the text of a letter. */
public enum LetterField {
    /** The name of the person written to. */
    NAME,
    /** The titles of the rounds the letter is about. */
    ROUND,
    /** For each round: title, deadline, what is still owed, and the personal link. A letter cannot do without. */
    PAPERS,
    /** The office that asks. */
    OFFICE,
    /** The coordinator who asks. */
    COORDINATOR;

    /** As it is written, such as {@code {name}}. */
    public String written() {
        return "{" + name().toLowerCase(Locale.ROOT) + "}";
    }

    static Optional<LetterField> find(String name) {
        return Arrays.stream(values()).filter(field -> field.name().equalsIgnoreCase(name)).findFirst();
    }

    static String allWritten() {
        return Arrays.stream(values()).map(LetterField::written).collect(Collectors.joining(", "));
    }
}
