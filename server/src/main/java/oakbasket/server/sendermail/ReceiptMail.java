package oakbasket.server.sendermail;

import java.time.ZonedDateTime;
import java.time.format.DateTimeFormatter;
import java.time.format.FormatStyle;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Collectors;
import oakbasket.core.identity.AddressCode;
import oakbasket.core.identity.Identity;
import oakbasket.core.identity.MailAddress;
import oakbasket.core.identity.Person;
import oakbasket.server.basket.Baskets;
import oakbasket.server.basket.Receipts;
import oakbasket.server.basket.Submission;
import oakbasket.server.brand.Brand;
import oakbasket.server.contact.Contact;
import oakbasket.server.contact.Contacts;
import oakbasket.server.problem.Problem;
import oakbasket.server.round.Round;
import oakbasket.server.security.Limits;
import oakbasket.server.words.Words;
import org.springframework.stereotype.Service;

/**
 * Mails a receipt to the address that is known of its sender. An address that was only typed is nobody's yet: else any stranger could have the office write to
 * anybody.
 */
@Service
class ReceiptMail {

    private final Receipts receipts;
    private final Baskets baskets;
    private final Contacts contacts;
    private final SenderMail mail;
    private final Limits limits;
    private final Words words;
    private final Brand brand;

    ReceiptMail(Receipts receipts, Baskets baskets, Contacts contacts, SenderMail mail, Limits limits, Words words, Brand brand) {
        this.brand = brand;
        this.receipts = receipts;
        this.baskets = baskets;
        this.contacts = contacts;
        this.mail = mail;
        this.limits = limits;
        this.words = words;
    }

    /** The address a receipt can go to, with most of it hidden; empty when none is known. */
    Optional<String> known(Submission submission) {
        return to(submission).map(Person::address).map(AddressCode::masked);
    }

    /**
     * Sends it.
     *
     * @return where it went, with most of the address hidden
     * @throws Problem when no address is known, the sending has no receipt yet, or no mail can be handed over
     */
    String send(Submission submission, Round round) {
        if (submission.finishedAt() == null) {
            throw Problem.conflict("no-receipt-yet");
        }
        Person to = to(submission).orElseThrow(() -> Problem.conflict("no-address"));
        limits.count(Limits.Kind.RECEIPT_MAIL, String.valueOf(submission.id()));
        limits.count(Limits.Kind.RECEIPT_MAIL_OF_ADDRESS, to.address().key());
        Receipts.Receipt receipt = receipts.finish(submission, "");
        String at = DateTimeFormatter.ofLocalizedDateTime(FormatStyle.LONG, FormatStyle.SHORT).withLocale(words.language()).format(ZonedDateTime.ofInstant(receipt.at(), round.zone()))
                + " (" + round.zone().getId() + ")";
        String files = receipt.files().stream().map(file -> words.of("mail.receipt.file", file.name(), file.item(), Long.toString(file.bytes()), file.sha256())).collect(Collectors.joining("\n"));
        mail.send(to, round, words.of("mail.receipt.subject", receipt.code(), round.title()), words.of("mail.receipt.body", brand.name(), round.title(), receipt.code(), at, files));
        return AddressCode.masked(to.address());
    }

    private Optional<Person> to(Submission submission) {
        if (submission.identity() == Identity.SELF_DECLARED) {
            return Optional.empty();
        }
        if (submission.identity() == Identity.CONFIRMED) {
            return Optional.of(new Person(String.valueOf(submission.declaredName()), MailAddress.parse(String.valueOf(submission.declaredEmail()))));
        }
        Contact contact = contacts.byId(baskets.byId(Objects.requireNonNull(submission.basketId())).contactId());
        return contact.email().isBlank() ? Optional.empty() : Optional.of(new Person(contact.name(), MailAddress.parse(contact.email())));
    }
}
