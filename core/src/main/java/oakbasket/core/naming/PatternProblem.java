package oakbasket.core.naming;

/** Why a naming pattern cannot be used. The message is fit for the person who typed it and says what would work. */
public final class PatternProblem extends RuntimeException {
    private final int position;

    PatternProblem(int position, String message) {
        super(message);
        this.position = position;
    }

    /** Where in the pattern, in characters from 0. */
    public int position() {
        return position;
    }
}
