package oakbasket.server.inward;

import com.google.re2j.Pattern;
import oakbasket.server.post.MailTags;
import oakbasket.server.words.Words;
import org.springframework.stereotype.Component;

/**
 * What is kept of the words of a message, without what opens something: a reply quotes the personal link and the mark of the letter it answers, and whoever may read a message may not for that send as somebody else.
 */
@Component
class KeptText {

    /** Our links, whatever the name in them (docs/glossary.md, request link): a secret of 160 bits in Base64url (RFC 4648), which a mail program may have broken into two lines. */
    private static final Pattern WHOLE = Pattern.compile("(?i)[^\\s<>\"'()]{0,300}/(?:b|p|d|f|x)/(?:[^\\s/<>]{1,100}/)?[a-z0-9_-]{20,60}[^\\s<>\"')]{0,200}");
    private static final Pattern BROKEN = Pattern.compile("(?i)https?://[^\\s<>\"'()]{1,300}/(?:b|p|d|f|x)/(?:[^\\s/<>]{1,100}/)?[a-z0-9_-]{1,26}=?\\r?\\n[> ]{0,10}[a-z0-9_-]{1,60}");

    private final MailTags tags;
    private final Words words;

    KeptText(MailTags tags, Words words) {
        this.tags = tags;
        this.words = words;
    }

    String of(String text) {
        String link = words.of("inward.link");
        return tags.without(BROKEN.matcher(WHOLE.matcher(text).replaceAll(link)).replaceAll(link));
    }
}
