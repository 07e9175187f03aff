package oakbasket.server.inward;

import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import oakbasket.core.inward.DeliveryReport;
import oakbasket.server.post.Letters;
import oakbasket.server.post.MailTags;
import oakbasket.server.words.Words;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Takes in reports of mail servers, and finds the letters they are about: by the address the report was sent to, else by the id of the letter that it returns. */
@Component
class Reports {

    /** As our letters have it. */
    private static final Pattern LETTER_ID = Pattern.compile("(?im)^Message-ID:\\s*<oak-letter-(\\d{1,18})-(\\d{1,18})@");

    private final Letters letters;
    private final Words words;

    Reports(Letters letters, Words words) {
        this.letters = letters;
        this.words = words;
    }

    InwardMessage taken(InwardMessage read, ReadMail mail, MailTags.@Nullable Tag tag) {
        InwardMessage report = InwardMessageBuilder.builder(read).kind(InwardMessage.Kind.REPORT).build();
        Long letter = tag == null ? byReturned(mail) : (Long) tag.id();
        List<DeliveryReport> said = DeliveryReport.ofFields(mail.report());
        DeliveryReport first = !said.isEmpty() ? said.get(0) : mail.report().isBlank() ? DeliveryReport.ofPlain(mail.text()).orElse(null) : null;
        if (letter == null) {
            return InwardMessageBuilder.builder(report).why(words.of("inward.unknown-letter")).build();
        }
        if (first == null) {
            return InwardMessageBuilder.builder(report).why(words.of("inward.nothing-said")).build();
        }
        letters.reported(letter, first.failed(), first.status(), first.failed() ? first.words() : words.of("inward.delayed", first.words()));
        return InwardMessageBuilder.builder(report).letterId(letters.exists(letter) ? letter : null).why(first.words()).build();
    }

    /** The letter whose header comes back; only where its id is one that we made. */
    private @Nullable Long byReturned(ReadMail mail) {
        Matcher found = LETTER_ID.matcher(mail.returned().isEmpty() ? mail.text() : mail.returned());
        return found.find() && letters.hasId(Long.parseLong(found.group(1)), Long.parseLong(found.group(2))) ? (Long) Long.parseLong(found.group(1)) : null;
    }
}
