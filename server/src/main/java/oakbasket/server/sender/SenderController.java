package oakbasket.server.sender;

import jakarta.servlet.http.HttpServletRequest;
import java.util.Objects;
import oakbasket.core.team.Permission;
import oakbasket.server.basket.Baskets;
import oakbasket.server.basket.Receipts;
import oakbasket.server.basket.Submission;
import oakbasket.server.basket.Submissions;
import oakbasket.server.claim.Claims;
import oakbasket.server.form.FormDownload;
import oakbasket.server.form.Forms;
import oakbasket.server.journal.Act;
import oakbasket.server.journal.Journal;
import oakbasket.server.journal.Why;
import oakbasket.server.link.Link;
import oakbasket.server.link.Links;
import oakbasket.server.problem.Problem;
import oakbasket.server.round.Drafts;
import oakbasket.server.round.Item;
import oakbasket.server.round.Rounds;
import oakbasket.server.security.FromOutside;
import oakbasket.server.security.Needs;
import oakbasket.server.web.Caller;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** The sender's side. Everything is said through the link in a header; nothing here ever gives back what was sent. */
@RestController
@FromOutside
class SenderController {

    record Passcode(@Nullable String passcode) {
    }

    record Ticket(String ticket) {
    }

    record Who(@Nullable String name, @Nullable String email) {
    }

    /** What goes along with the end of a sending. */
    record Ending(@Nullable String note) {
    }

    /** A receipt code as it was typed, and the SHA-256 of a file in hexadecimal. */
    record ReceiptQuestion(@Nullable String code, @Nullable String sha256) {
    }

    record Proof(boolean received) {
    }

    record Begun(String submission) {
    }

    record PageMark(String mark) {
    }

    private final Links links;
    private final BasketPage pages;
    private final Baskets baskets;
    private final Submissions submissions;
    private final Receipts receipts;
    private final Rounds rounds;
    private final Drafts drafts;
    private final Forms forms;
    private final Claims claims;

    SenderController(Links links, BasketPage pages, Baskets baskets, Submissions submissions, Receipts receipts, Rounds rounds, Drafts drafts, Forms forms, Claims claims) {
        this.claims = claims;
        this.links = links;
        this.pages = pages;
        this.baskets = baskets;
        this.submissions = submissions;
        this.receipts = receipts;
        this.rounds = rounds;
        this.drafts = drafts;
        this.forms = forms;
    }

    @GetMapping("/api/basket")
    BasketPage.Page page(@RequestHeader(value = "Oak-Link", required = false) @Nullable String token,
            @RequestHeader(value = "Oak-Ticket", required = false) @Nullable String ticket,
            @RequestHeader(value = "Oak-Submission", required = false) @Nullable String key, HttpServletRequest request) {
        Links.Admitted in = links.admit(token, ticket, Caller.of(request), submissions.countedThrough(key));
        return pages.behind(in.link(), in.round());
    }

    /** A mark of the page as it is now, by which a page that stays open finds out whether something of it changed; empty where nothing is shown as it changes. */
    @GetMapping("/api/basket/mark")
    PageMark mark(@RequestHeader(value = "Oak-Link", required = false) @Nullable String token,
            @RequestHeader(value = "Oak-Ticket", required = false) @Nullable String ticket,
            @RequestHeader(value = "Oak-Submission", required = false) @Nullable String key, HttpServletRequest request) {
        return new PageMark(page(token, ticket, key, request).mark());
    }

    /** Says that somebody looks at the page: its HTML is also fetched by programs that nobody looks through. */
    @PostMapping("/api/basket/seen")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void seen(@RequestHeader(value = "Oak-Link", required = false) @Nullable String token,
            @RequestHeader(value = "Oak-Ticket", required = false) @Nullable String ticket, HttpServletRequest request) {
        Long basket = links.admit(token, ticket, Caller.of(request)).link().basketId();
        if (basket != null) {
            baskets.pageSeen(basket);
        }
    }

    @PostMapping("/api/basket/passcode")
    Ticket unlock(@RequestHeader(value = "Oak-Link", required = false) @Nullable String token, @RequestBody Passcode body, HttpServletRequest request) {
        return new Ticket(links.unlock(token, text(body.passcode()), Caller.of(request)));
    }

    @PostMapping("/api/basket/submissions")
    @ResponseStatus(HttpStatus.CREATED)
    Begun begin(@RequestHeader(value = "Oak-Link", required = false) @Nullable String token,
            @RequestHeader(value = "Oak-Ticket", required = false) @Nullable String ticket, @RequestBody Who who, HttpServletRequest request) {
        Link link = links.admitSending(token, ticket, Caller.of(request), 0).link();
        return new Begun(submissions.begin(link, text(who.name()), text(who.email()), Caller.of(request)));
    }

    /** Corrects who the sender says they are, while the sending is not ended; what has arrived goes along. */
    @PutMapping("/api/basket/submissions")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void correct(@RequestHeader(value = "Oak-Link", required = false) @Nullable String token,
            @RequestHeader(value = "Oak-Ticket", required = false) @Nullable String ticket,
            @RequestHeader(value = "Oak-Submission", required = false) @Nullable String key, @RequestBody Who who, HttpServletRequest request) {
        Link link = links.admit(token, ticket, Caller.of(request), submissions.countedThrough(key)).link();
        Submission submission = submissions.byKey(key);
        if (submission.linkId() != link.id() || !link.isOpen()) {
            throw Problem.notFound("no-submission");
        }
        if (!submissions.correct(link, submission, text(who.name()), text(who.email())).isEmpty()) {
            Submission corrected = submissions.byId(submission.id());
            claims.fileAnew(corrected, Journal.Cause.of(Act.MOVED, Why.of("sender-corrected")));
        }
    }

    /** The blank form of an item, to be taken along. */
    @GetMapping("/api/basket/forms/{number}")
    ResponseEntity<byte[]> form(@PathVariable int number, @RequestHeader(value = "Oak-Link", required = false) @Nullable String token,
            @RequestHeader(value = "Oak-Ticket", required = false) @Nullable String ticket, HttpServletRequest request) {
        Links.Admitted in = links.admit(token, ticket, Caller.of(request));
        return FormDownload.of(rounds.items(in.round().id()).stream().filter(item -> item.number() == number).map(Item::formId).filter(Objects::nonNull).findFirst().map(forms::byId)
                .orElseThrow(() -> Problem.notFound("no-form")));
    }

    /** For the desk: a form as a sender will take it along. */
    @Needs(Permission.CHANGE)
    @GetMapping("/api/rounds/{id}/rehearsal/forms/{number}")
    ResponseEntity<byte[]> rehearsedForm(@PathVariable long id, @PathVariable int number) {
        return FormDownload.of(drafts.rehearse(id).items().stream().filter(item -> item.number() == number).map(Item::formId).filter(Objects::nonNull).findFirst().map(forms::byId)
                .orElseThrow(() -> Problem.notFound("no-form")));
    }

    /** Also after closing: what was begun may be finished. */
    @PostMapping("/api/basket/submissions/finish")
    Receipts.Receipt finish(@RequestHeader(value = "Oak-Submission", required = false) @Nullable String key, @RequestBody(required = false) @Nullable Ending ending) {
        return receipts.finish(submissions.byKey(key), ending == null ? "" : text(ending.note()));
    }

    /** Whether a file with this content was received with the sending of this receipt; anybody may ask who holds both. */
    @PostMapping("/api/basket/receipt-check")
    Proof check(@RequestBody ReceiptQuestion question, HttpServletRequest request) {
        return new Proof(receipts.proves(text(question.code()), text(question.sha256()), Caller.of(request)));
    }

    /** For the desk: the page as a sender will see it, also of a draft that could be opened. */
    @Needs(Permission.CHANGE)
    @GetMapping("/api/rounds/{id}/rehearsal")
    BasketPage.Page rehearsal(@PathVariable long id) {
        return pages.rehearsal(drafts.rehearse(id));
    }

    private static String text(@Nullable String given) {
        return given == null ? "" : given;
    }
}
