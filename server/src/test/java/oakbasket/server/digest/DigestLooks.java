package oakbasket.server.digest;

/** Has the application look whether anybody is to be told. */
public final class DigestLooks {

    /** Who looks. */
    public static final Class<?> TYPE = Digests.class;

    private DigestLooks() {
    }

    /** Looks twice: what the first look sees is told by the second. */
    public static void twice(Object digests) {
        ((Digests) digests).look();
        ((Digests) digests).look();
    }
}
