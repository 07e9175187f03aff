package oakbasket.server.security;

/** Limits with nothing used up, for tests of other packages. */
public final class LimitsForTests {

    private LimitsForTests() {
    }

    public static Limits fresh() {
        return new Limits();
    }
}
