package oakbasket.server.sendermail;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.time.Clock;
import java.util.Objects;
import oakbasket.core.identity.AddressCode;
import oakbasket.core.identity.Claim;
import oakbasket.core.identity.MailAddress;
import oakbasket.core.identity.Person;
import oakbasket.server.basket.Submission;
import oakbasket.server.basket.Submissions;
import oakbasket.server.claim.Claims;
import oakbasket.server.link.Link;
import oakbasket.server.problem.Problem;
import oakbasket.server.round.Round;
import oakbasket.server.security.Limits;
import oakbasket.server.security.SecretKeys;
import oakbasket.server.storage.Transactions;
import oakbasket.server.words.Words;
import org.springframework.stereotype.Service;

/** Mails a one-time code to the address that a sender typed, and takes it back from them: whoever reads that mailbox is the person. */
@Service
class AddressCodes {

    private final Submissions submissions;
    private final Claims claims;
    private final SenderMail mail;
    private final SecretKeys keys;
    private final Transactions transactions;
    private final Limits limits;
    private final Words words;
    private final Clock clock;

    AddressCodes(Submissions submissions, Claims claims, SenderMail mail, SecretKeys keys, Transactions transactions, Limits limits, Words words, Clock clock) {
        this.submissions = submissions;
        this.claims = claims;
        this.mail = mail;
        this.keys = keys;
        this.transactions = transactions;
        this.limits = limits;
        this.words = words;
        this.clock = clock;
    }

    /**
     * Mails a new code; the one before works no more.
     *
     * @throws Problem when the address needs no code, too many were asked for, or no mail can be handed over
     */
    void send(Link link, Round round, Submission submission, String caller) {
        String address = declared(submission);
        limits.count(Limits.Kind.CODE_OF_ADDRESS, String.valueOf(submission.declaredKey()));
        limits.count(Limits.Kind.CODE, link.id() + " " + caller);
        limits.count(Limits.Kind.CODE_OF_LINK, String.valueOf(link.id()));
        String code = AddressCode.random(keys.generator());
        transactions.durably(() -> submissions.keepCode(submission.id(), sign(submission.id(), code), clock.instant().plus(AddressCode.LIFE)));
        // Not by the name they typed: a stranger's words would go out in the name of the office.
        mail.send(new Person(address, MailAddress.parse(address)), round, words.of("mail.code.subject", code),
                words.of("mail.code.body", code, AddressCode.LIFE.toMinutes(), round.title()));
    }

    /**
     * Takes a code. When it is right the sending is the person's, and what waited for somebody's yes counts.
     *
     * @throws Problem naming the field when it is wrong, too old, or was tried too often
     */
    void confirm(Submission submission, String typed) {
        declared(submission);
        String code = typed.replaceAll("[\\s-]", "");
        if (!code.matches("\\d{" + AddressCode.DIGITS + "}")) {
            throw Problem.field("code", "code-form", AddressCode.DIGITS);
        }
        // Counted before it is looked at, so that many at once are no more than one after another.
        if (!transactions.durably(() -> submissions.countCodeTry(submission.id(), AddressCode.MOST_TRIES))) {
            throw Problem.field("code", "code-over");
        }
        Submission counted = submissions.byId(submission.id());
        byte[] kept = counted.codeHash();
        if (kept == null || !MessageDigest.isEqual(kept, sign(submission.id(), code))) {
            throw Problem.field("code", counted.codeTries() >= AddressCode.MOST_TRIES ? "code-over" : "code-wrong", AddressCode.MOST_TRIES - counted.codeTries());
        }
        transactions.durably(() -> submissions.confirm(submission.id()));
        Submission confirmed = submissions.byId(submission.id());
        if (confirmed.claim() == Claim.OPEN && confirmed.basketId() != null) {
            claims.confirm(confirmed, Objects.requireNonNull(confirmed.basketId()));
        }
    }

    private static String declared(Submission submission) {
        String address = submission.declaredEmail();
        if (address == null || submission.confirmedAt() != null) {
            throw Problem.conflict("confirmed-already");
        }
        return address;
    }

    private byte[] sign(long submission, String code) {
        return keys.sign(("code " + submission + " " + code).getBytes(StandardCharsets.UTF_8));
    }
}
