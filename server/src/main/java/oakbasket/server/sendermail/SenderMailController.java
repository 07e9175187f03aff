package oakbasket.server.sendermail;

import jakarta.servlet.http.HttpServletRequest;
import oakbasket.server.basket.Submission;
import oakbasket.server.basket.Submissions;
import oakbasket.server.link.Link;
import oakbasket.server.link.Links;
import oakbasket.server.problem.Problem;
import oakbasket.server.round.Round;
import oakbasket.server.round.Rounds;
import oakbasket.server.security.FromOutside;
import oakbasket.server.web.Caller;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Mail that a sender asks for. Who holds the key of a sending is its sender; the link may be shut meanwhile. */
@RestController
@FromOutside
class SenderMailController {

    record TypedCode(@Nullable String code) {
    }

    /** Where a receipt went or can go, with most of the address hidden; null when no address is known. */
    record MailedTo(@Nullable String address) {
    }

    private final AddressCodes codes;
    private final ReceiptMail receipts;
    private final Submissions submissions;
    private final Links links;
    private final Rounds rounds;

    SenderMailController(AddressCodes codes, ReceiptMail receipts, Submissions submissions, Links links, Rounds rounds) {
        this.codes = codes;
        this.receipts = receipts;
        this.submissions = submissions;
        this.links = links;
        this.rounds = rounds;
    }

    @PostMapping("/api/basket/submissions/code")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void mailCode(@RequestHeader(value = "Oak-Submission", required = false) @Nullable String key, HttpServletRequest request) {
        Submission submission = submissions.byKey(key);
        Link link = usable(submission);
        codes.send(link, rounds.opened(link.roundId()), submission, Caller.of(request));
    }

    @PutMapping("/api/basket/submissions/code")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void takeCode(@RequestHeader(value = "Oak-Submission", required = false) @Nullable String key, @RequestBody TypedCode typed) {
        Submission submission = submissions.byKey(key);
        usable(submission);
        codes.confirm(submission, typed.code() == null ? "" : typed.code());
    }

    @GetMapping("/api/basket/submissions/receipt-mail")
    MailedTo known(@RequestHeader(value = "Oak-Submission", required = false) @Nullable String key) {
        return new MailedTo(receipts.known(submissions.byKey(key)).orElse(null));
    }

    @PostMapping("/api/basket/submissions/receipt-mail")
    MailedTo mailReceipt(@RequestHeader(value = "Oak-Submission", required = false) @Nullable String key) {
        Submission submission = submissions.byKey(key);
        Round round = rounds.opened(usable(submission).roundId());
        return new MailedTo(receipts.send(submission, round));
    }

    /** A link that was withdrawn makes the office write no mail any more. */
    private Link usable(Submission submission) {
        Link link = links.byId(submission.linkId());
        if (link.terms().withdrawnAt() != null) {
            throw Problem.notFound("link-unknown");
        }
        return link;
    }
}
