package oakbasket.server.words;

import com.google.re2j.Pattern;

/** Finds our links in words that somebody wrote (docs/glossary.md, request link): a secret of 160 bits in Base64url (RFC 4648) behind the letter of what it opens, whatever the readable name between them. */
public final class Linkless {

    private static final String BEFORE = "[^\\s<>\"'()]{0,300}/(?:b|p|d|f|x)/(?:[^\\s/<>]{1,100}/)?";
    /** Also such as are nearly right, which a mail program may have broken into two lines. */
    private static final Pattern PERHAPS = Pattern.compile("(?i)" + BEFORE + "[a-z0-9_-]{20,60}[^\\s<>\"')]{0,200}");
    private static final Pattern BROKEN = Pattern.compile("(?i)https?://[^\\s<>\"'()]{1,300}/(?:b|p|d|f|x)/(?:[^\\s/<>]{1,100}/)?[a-z0-9_-]{1,26}=?\\r?\\n[> ]{0,10}[a-z0-9_-]{1,60}");
    private static final Pattern SURELY = Pattern.compile("(?i)" + BEFORE + "[a-z0-9_-]{27}(?:[/?#][^\\s<>\"')]{0,200})?(?P<after>[^a-z0-9_-]|$)");
    /** No shorter text holds one. */
    private static final int SHORTEST = 30;

    private Linkless() {
    }

    /** Words of a stranger, in which whatever looks like a link goes. @param instead what is written in its place */
    public static String strictly(String text, String instead) {
        return BROKEN.matcher(PERHAPS.matcher(text).replaceAll(instead)).replaceAll(instead);
    }

    /** Words of the office, in which only links go and a path of files stays. */
    public static String of(String text, String instead) {
        return text.length() < SHORTEST ? text : SURELY.matcher(text).replaceAll(instead + "${after}");
    }
}
