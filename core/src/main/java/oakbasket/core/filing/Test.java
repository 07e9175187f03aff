package oakbasket.core.filing;

/** What a condition asks. Texts are compared as they are searched: without accents and in small letters. */
public enum Test {
    IS,
    IS_NOT,
    CONTAINS,
    CONTAINS_NOT,
    BEGINS,
    ENDS,
    /** The whole text matches a regular expression of RE2, in linear time. */
    MATCHES,
    AT_LEAST,
    AT_MOST
}
