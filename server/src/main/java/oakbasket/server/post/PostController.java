package oakbasket.server.post;

import java.time.Clock;
import java.util.List;
import java.util.UUID;
import oakbasket.core.identity.MailAddress;
import oakbasket.core.identity.Person;
import oakbasket.core.letter.LetterKind;
import oakbasket.server.Settings;
import oakbasket.server.account.Account;
import oakbasket.server.mail.MailTrouble;
import oakbasket.server.mail.Mailer;
import oakbasket.server.mail.OutgoingMail;
import oakbasket.server.problem.Problem;
import oakbasket.server.words.Words;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** How letters leave this office, and the words they have. */
@RestController
class PostController {

    /**
     * How the post is set up.
     *
     * @param server the mail server; empty where letters are only put into a folder
     * @param links what links in letters begin with
     * @param reachable whether that is an address for others, and not just this machine
     * @param undelivered how many letters did not arrive and still need somebody
     * @param trouble why no letter can be handed over at present; empty when they can
     */
    record PostView(String server, String from, String links, boolean reachable, String trouble, int undelivered) {
    }

    record TypedText(@Nullable String subject, @Nullable String body, @Nullable Integer version) {
    }

    private final Mailer mailer;
    private final Letters letters;
    private final Postman postman;
    private final LinkAddress links;
    private final LetterTexts texts;
    private final LetterWriter writer;
    private final Words words;
    private final Settings settings;
    private final Clock clock;

    PostController(Mailer mailer, Letters letters, Postman postman, LinkAddress links, LetterTexts texts, LetterWriter writer, Words words, Settings settings, Clock clock) {
        this.mailer = mailer;
        this.letters = letters;
        this.postman = postman;
        this.links = links;
        this.texts = texts;
        this.writer = writer;
        this.words = words;
        this.settings = settings;
        this.clock = clock;
    }

    @GetMapping("/api/post")
    PostView post() {
        return new PostView(mailer.server(), from(), links.base(), links.reachable(), postman.trouble(), letters.needingSomebody());
    }

    /** Sends a letter to the coordinator who asks for it. */
    @PostMapping("/api/post/test")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void test(@AuthenticationPrincipal Account account) {
        Person coordinator = new Person(account.name(), MailAddress.parse(account.email()));
        String id = "oak-test-" + UUID.randomUUID() + from().substring(from().lastIndexOf('@'));
        try {
            mailer.send(new OutgoingMail(id, coordinator, coordinator, words.of("letter.test.subject"), words.of("letter.test.body"), clock.instant()));
        } catch (MailTrouble refused) {
            throw Problem.of(Problem.Kind.OTHER_SERVER, "mail-not-taken", words.of(refused.reason()));
        }
    }

    @GetMapping("/api/letter-texts")
    List<LetterTexts.KeptText> texts() {
        return texts.all();
    }

    @PutMapping("/api/letter-texts/{kind}")
    LetterTexts.KeptText save(@PathVariable LetterKind kind, @RequestBody TypedText typed) {
        return texts.save(kind, typed.version() == null ? 0 : typed.version(), text(typed.subject()), text(typed.body()));
    }

    /** Goes back to the words that ship. */
    @DeleteMapping("/api/letter-texts/{kind}")
    LetterTexts.KeptText reset(@PathVariable LetterKind kind) {
        return texts.reset(kind);
    }

    /** Shows a text with made-up facts, or says what is wrong with it; stores nothing. */
    @PostMapping("/api/letter-texts/example")
    RoundLettersController.LetterLook example(@RequestBody TypedText typed, @AuthenticationPrincipal Account account) {
        LetterWriter.Written written = writer.example(texts.check(text(typed.subject()), text(typed.body())), account);
        return new RoundLettersController.LetterLook(written.subject(), written.body());
    }

    private String from() {
        return settings.letterSender();
    }

    /** Line ends as they are everywhere here. */
    private static String text(@Nullable String typed) {
        return typed == null ? "" : typed.replace("\r\n", "\n").replace('\r', '\n');
    }
}
