package oakbasket.server.filing;

import java.time.Instant;
import java.util.List;
import java.util.Objects;
import java.util.stream.Stream;
import oakbasket.core.filekind.FileKind;
import oakbasket.core.filing.FilingFacts;
import oakbasket.core.filing.FilingFactsBuilder;
import oakbasket.core.filing.Source;
import oakbasket.core.identity.Identity;
import oakbasket.core.naming.NameFacts;
import oakbasket.core.naming.NameFactsBuilder;
import oakbasket.core.receipt.ReceiptCode;
import oakbasket.server.basket.Basket;
import oakbasket.server.basket.Submission;
import oakbasket.server.contact.Contact;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.round.Round;
import oakbasket.server.words.Words;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Puts together what rules and patterns need to know of a file. */
@Component
public class Circumstances {

    /**
     * A file as it was sent.
     *
     * @param name the name it had at the sender's
     * @param mediaType as its content shows
     */
    public record Sent(String name, long bytes, String mediaType, Instant receivedAt) {

        /** A file that was received. */
        public static Sent of(ReceivedFile file) {
            return new Sent(file.originalName(), file.sizeBytes(), file.mediaType(), file.receivedAt());
        }
    }

    private final Words words;
    private final String groupless;

    Circumstances(Words words) {
        this.words = words;
        this.groupless = words.of("folder.no-group");
    }

    /**
     * What is known of a file.
     *
     * @param number the how-manieth of its item in its basket
     */
    public FilingFacts of(Round round, Basket basket, Contact contact, Submission submission, String item, Sent sent, int number) {
        FileKind kind = kind(sent);
        NameFacts names = NameFactsBuilder.stagedBuilder().round(round.title()).group(contact.group()).groupless(groupless).person(contact.name()).organisation(contact.organisation())
                .email(contact.email()).reference(contact.reference()).sender(Objects.requireNonNullElse(submission.declaredName(), "")).item(item).kind(kindWord(kind))
                .original(sent.name()).received(sent.receivedAt()).deadline(round.deadline().instant()).zone(round.zone()).receipt(new ReceiptCode(submission.receiptCode()).toString())
                .number(number).build();
        return FilingFactsBuilder.stagedBuilder().names(names).groups(contact.groups().isEmpty() ? basket.groups() : contact.groups()).kind(kind).sizeBytes(sent.bytes())
                .late(sent.receivedAt().isAfter(round.terms(basket.extension()).effective())).identity(submission.identity())
                .source(submission.byMail() ? Source.MAIL : submission.byDesk() ? Source.DESK : submission.declared() ? Source.OPEN_LINK : Source.PERSONAL_LINK).build();
    }

    /** What is supposed of somebody who never sent anything, for examples. */
    public FilingFacts example(NameFacts names, List<String> groups, @Nullable FileKind kind) {
        return FilingFactsBuilder.stagedBuilder().names(names).groups(groups).kind(kind).sizeBytes(0).late(false).identity(Identity.IDENTIFIED).source(Source.PERSONAL_LINK).build();
    }

    /** What stands for the group of those in none. */
    public String groupless() {
        return groupless;
    }

    /** The kind of a file: by what its content is, else by its name. */
    public static @Nullable FileKind kind(Sent sent) {
        return Stream.of(FileKind.values()).filter(kind -> kind.holds(sent.mediaType())).findFirst()
                .or(() -> Stream.of(FileKind.values()).filter(kind -> kind.named(sent.name())).findFirst()).orElse(null);
    }

    /** A kind as it stands in names. */
    public String kindWord(@Nullable FileKind kind) {
        return words.of(kind == null ? "kind.NONE" : "kind." + kind.name());
    }
}
