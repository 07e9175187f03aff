package oakbasket.server.mail;

import java.util.stream.Collectors;
import java.util.stream.Stream;
import oakbasket.server.brand.Face;

/**
 * How letters look.
 *
 * @param office whose they are
 * @param colour of the line above them, as CSS has it; empty for none
 * @param foot what stands below every letter, apart from it; empty for nothing
 */
record LetterLook(String office, String colour, String foot) {

    static LetterLook of(Face face) {
        return new LetterLook(face.name(), face.colour(), Stream.of(face.contact(), face.privacy()).filter(line -> !line.isEmpty()).collect(Collectors.joining("\n")));
    }

    /** A letter with its foot. */
    String whole(String body) {
        return foot.isEmpty() ? body : body.stripTrailing() + "\n\n" + foot + "\n";
    }
}
