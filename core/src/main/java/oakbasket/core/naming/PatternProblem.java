package oakbasket.core.naming;

import oakbasket.core.fault.FaultyValue;

/** Why a naming pattern cannot be used; its reason says what would work. */
public final class PatternProblem extends FaultyValue {

    private final int position;

    PatternProblem(int position, String code, Object... arguments) {
        super(code, arguments);
        this.position = position;
    }

    /** Where in the pattern, in characters from 0. */
    public int position() {
        return position;
    }
}
