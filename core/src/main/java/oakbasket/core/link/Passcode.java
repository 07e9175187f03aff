package oakbasket.core.link;

import java.util.Optional;
import oakbasket.core.fault.Fault;

/** What can be a passcode of a link. */
public final class Passcode {

    /** The shortest in characters. */
    public static final int SHORTEST = 6;
    /** The longest in characters. */
    public static final int LONGEST = 64;

    private Passcode() {
    }

    /** What keeps a text from being a passcode; empty when nothing does. The empty one asks for none. */
    public static Optional<Fault> fault(String typed) {
        int length = typed.strip().length();
        return length == 0 || length >= SHORTEST && length <= LONGEST ? Optional.empty() : Optional.of(Fault.of("passcode", "passcode-length", SHORTEST, LONGEST));
    }
}
