package oakbasket.server.post;

import java.time.Clock;
import java.util.List;
import java.util.Locale;
import java.util.UUID;
import oakbasket.core.identity.MailAddress;
import oakbasket.core.identity.Person;
import oakbasket.core.letter.LetterKind;
import oakbasket.core.team.Permission;
import oakbasket.server.Settings;
import oakbasket.server.account.Account;
import oakbasket.server.mail.MailTrouble;
import oakbasket.server.mail.Mailer;
import oakbasket.server.mail.OutgoingMail;
import oakbasket.server.problem.Problem;
import oakbasket.server.security.Needs;
import oakbasket.server.words.SenderLanguages;
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
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** How letters leave this office, and the words they have. */
@RestController
@Needs(Permission.CHANGE)
class PostController {

    /**
     * How the post is set up.
     *
     * @param server the mail server; empty where letters are only put into a folder
     * @param links what links in letters begin with
     * @param reachable whether that is an address for others, and not just this machine
     * @param undelivered how many letters did not arrive and still need somebody
     * @param collecting the address that collects papers; empty where none does
     * @param pretend whether a pretend mail server runs inside
     * @param trouble why no letter can be handed over at present; empty when they can
     */
    record PostView(String server, String from, String links, boolean reachable, String trouble, int undelivered, String collecting, boolean pretend) {
    }

    /**
     * A text as it is typed.
     *
     * @param kind only for the example; as is the rest
     * @param contactId whom it is filled in for; null for somebody made up
     */
    record TypedText(@Nullable String subject, @Nullable String body, @Nullable Integer version, @Nullable LetterKind kind, @Nullable String language, @Nullable Long contactId) {
    }

    private final Mailer mailer;
    private final Letters letters;
    private final Postman postman;
    private final LinkAddress links;
    private final LetterTexts texts;
    private final LetterPreviews previews;
    private final Words words;
    private final Settings settings;
    private final Clock clock;

    PostController(Mailer mailer, Letters letters, Postman postman, LinkAddress links, LetterTexts texts, LetterPreviews previews, Words words, Settings settings, Clock clock) {
        this.mailer = mailer;
        this.letters = letters;
        this.postman = postman;
        this.links = links;
        this.texts = texts;
        this.previews = previews;
        this.words = words;
        this.settings = settings;
        this.clock = clock;
    }

    @GetMapping("/api/post")
    PostView post() {
        return new PostView(mailer.server(), from(), links.base(), links.reachable(), postman.trouble(), letters.needingSomebody(), settings.collecting(), settings.postOffice());
    }

    /** Sends a letter to the coordinator who asks for it. */
    @Needs(Permission.SET_UP)
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
    List<LetterTexts.KeptText> texts(@RequestParam(defaultValue = "en") String language) {
        return texts.all(language(language));
    }

    @PutMapping("/api/letter-texts/{kind}")
    LetterTexts.KeptText save(@PathVariable LetterKind kind, @RequestParam(defaultValue = "en") String language, @RequestBody TypedText typed) {
        return texts.save(kind, language(language), typed.version() == null ? 0 : typed.version(), text(typed.subject()), text(typed.body()));
    }

    /** Goes back to the words that ship. */
    @DeleteMapping("/api/letter-texts/{kind}")
    LetterTexts.KeptText reset(@PathVariable LetterKind kind, @RequestParam(defaultValue = "en") String language) {
        return texts.reset(kind, language(language));
    }

    /** Shows a text filled in for a person, or with made-up facts, or says what is wrong with it; stores nothing. */
    @PostMapping("/api/letter-texts/example")
    RoundLettersController.LetterLook example(@RequestBody TypedText typed, @AuthenticationPrincipal Account account) {
        Locale language = language(typed.language() == null ? "en" : typed.language());
        return previews.filledIn(texts.check(text(typed.subject()), text(typed.body())), typed.kind() == null ? LetterKind.REMINDER : typed.kind(), language, typed.contactId(), account);
    }

    private static Locale language(String tag) {
        return SenderLanguages.ofTag(tag).orElseThrow(() -> Problem.field("language", "no-such-language"));
    }

    private String from() {
        return settings.letterSender();
    }

    /** Line ends as they are everywhere here. */
    private static String text(@Nullable String typed) {
        return typed == null ? "" : typed.replace("\r\n", "\n").replace('\r', '\n');
    }
}
