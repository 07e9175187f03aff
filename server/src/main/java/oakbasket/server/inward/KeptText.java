package oakbasket.server.inward;

import oakbasket.server.post.MailTags;
import oakbasket.server.words.Linkless;
import oakbasket.server.words.Words;
import org.springframework.stereotype.Component;

/**
 * What is kept of the words of a message, without what opens something: a reply quotes the personal link and the mark of the letter it answers, and whoever may read a message may not for that send as somebody else.
 */
@Component
class KeptText {

    private final MailTags tags;
    private final Words words;

    KeptText(MailTags tags, Words words) {
        this.tags = tags;
        this.words = words;
    }

    String of(String text) {
        return tags.without(Linkless.strictly(text, words.of("inward.link")));
    }
}
