package oakbasket.server.post;

import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import oakbasket.core.identity.MailAddress;
import oakbasket.core.identity.Person;
import oakbasket.core.letter.LetterFacts;
import oakbasket.core.letter.LetterKind;
import oakbasket.core.letter.LetterText;
import oakbasket.server.Settings;
import oakbasket.server.account.Account;
import oakbasket.server.account.AccountService;
import oakbasket.server.basket.Receipts;
import oakbasket.server.basket.Submissions;
import oakbasket.server.board.Board;
import oakbasket.server.brand.Brand;
import oakbasket.server.contact.Contact;
import oakbasket.server.contact.Contacts;
import oakbasket.server.lettersetting.LetterSetting;
import oakbasket.server.lettersetting.LetterSettings;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.round.Item;
import oakbasket.server.round.Round;
import oakbasket.server.round.Rounds;
import oakbasket.server.words.SenderLanguages;
import oakbasket.server.words.Words;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Writes letters: what is owed at this moment, in the office's words. */
@Component
class LetterWriter {

    /** A basket that a letter tells of, as it stands now. */
    record Told(long roundId, Board.Row row) {
    }

    /**
     * A letter in words; links stand in the body as marks.
     *
     * @param replyTo who reads answers
     * @param language the language it is in
     * @param calendar the deadlines as an iCalendar object; null when none goes along
     */
    record Written(Person to, Person replyTo, String subject, String body, Locale language, @Nullable String calendar) {
    }

    private final Rounds rounds;
    private final Contacts contacts;
    private final ReceivedFiles files;
    private final Receipts receipts;
    private final Submissions submissions;
    private final AccountService accounts;
    private final LetterTexts texts;
    private final LetterSettings common;
    private final Words words;
    private final Settings settings;
    private final Brand brand;
    private final ExchangeLetters exchanges;
    private final Clock clock;

    LetterWriter(Rounds rounds, Contacts contacts, ReceivedFiles files, Receipts receipts, Submissions submissions, AccountService accounts, LetterTexts texts, LetterSettings common, Words words,
            Settings settings, Clock clock, Brand brand, ExchangeLetters exchanges) {
        this.exchanges = exchanges;
        this.brand = brand;
        this.rounds = rounds;
        this.contacts = contacts;
        this.files = files;
        this.receipts = receipts;
        this.submissions = submissions;
        this.accounts = accounts;
        this.texts = texts;
        this.common = common;
        this.words = words;
        this.settings = settings;
        this.clock = clock;
    }

    /** The language a person is written to in: their own where it is one of ours. */
    static Locale language(Contact contact) {
        return SenderLanguages.ofTag(contact.language()).orElse(Locale.ENGLISH);
    }

    /**
     * Writes a letter about these baskets, which belong to one person.
     *
     * @param submission the sending it tells of; null when it tells of none
     * @param collecting the address that collects papers for what it is about; empty where there is none
     */
    Written write(LetterKind kind, List<Told> baskets, @Nullable Long submission, String collecting) {
        Contact contact = contacts.byId(baskets.get(0).row().contactId());
        return write(texts.of(kind, language(contact)).text(), kind, baskets, submission, collecting, language(contact));
    }

    /** The same in words of one's own and a language of one's own. */
    Written write(LetterText text, LetterKind kind, List<Told> baskets, @Nullable Long submission, String collecting, Locale language) {
        Contact contact = contacts.byId(baskets.get(0).row().contactId());
        LetterLines lines = new LetterLines(words.in(language));
        Account asking = accounts.current(rounds.opened(baskets.get(0).roundId()).askedBy());
        List<LetterFacts.Papers> papers = new ArrayList<>();
        for (Told told : baskets) {
            papers.add(kind == LetterKind.EXCHANGE ? exchanges.papers(lines, told, contact) : kind.tellsOfReceived() ? received(lines, told, submission) : owed(lines, kind, told, contact));
        }
        Person coordinator = new Person(asking.name(), MailAddress.parse(asking.email()));
        LetterFacts facts = new LetterFacts(LinkAddress.plain(contact.name()), LinkAddress.plain(brand.name()), LinkAddress.plain(asking.name()), papers);
        LetterSetting setting = common.now();
        return new Written(new Person(contact.name(), MailAddress.parse(contact.email())), common.replyTo(setting, coordinator, collecting), text.subjectFor(facts),
                LetterSettings.signed(setting, text.bodyFor(facts)), language, setting.calendar() && kind != LetterKind.OVERDUE && kind != LetterKind.EXCHANGE && !kind.tellsOfReceived() ? calendar(lines, baskets) : null);
    }

    private String calendar(LetterLines lines, List<Told> baskets) {
        return DeadlineEntries.of(baskets.stream().map(told -> {
            Round round = rounds.opened(told.roundId());
            boolean wholeDay = told.row().extended() || round.deadline().dateOnly();
            return new DeadlineEntries.Entry(told.row().id(), lines.calendar(round.title(), brand.name()), told.row().deadline(), wholeDay ? round.zone() : null);
        }).toList(), settings.letterSender(), clock.instant());
    }

    /** A text with made-up facts, to look at. */
    Written example(LetterText text, LetterKind kind, Account account, Locale language) {
        LetterLines lines = new LetterLines(words.in(language));
        List<String> items = List.of(words.in(language).of("letter.example.items").split("\n"));
        Instant example = Instant.parse("2027-03-25T17:00:00Z");
        LetterFacts.Papers papers = kind.ofParcel() ? new LetterFacts.Papers(words.in(language).of("letter.example.parcel"), "", lines.until(example, settings.zone(), ""),
                List.of(words.in(language).of("letter.example.file")), "https://oak.example.org/p/…") : new LetterFacts.Papers(words.in(language).of("letter.example.round"), "",
                kind == LetterKind.EXCHANGE ? lines.openUntil(example, settings.zone(), "") : kind.tellsOfReceived() ? lines.receipt("OAK7-3KWF-9TZM", example, settings.zone()) : lines.due(example, false, settings.zone(), ""),
                kind.tellsOfReceived() || kind == LetterKind.EXCHANGE ? List.of(words.in(language).of("letter.example.file")) : items, "https://oak.example.org/b/…");
        return ownAsRecipient(text, account, language, words.in(language).of("letter.example.name"), papers);
    }

    /**
     * The letter of a round that may still be a draft, to look at.
     *
     * @param name whom it addresses; empty for a made-up one
     */
    Written draft(LetterKind kind, Round round, List<Item> items, String name, Locale language) {
        LetterLines lines = new LetterLines(words.in(language));
        List<String> owed = items.stream().map(lines::asked).toList();
        LetterFacts.Papers papers = new LetterFacts.Papers(round.title(), kind == LetterKind.INVITATION ? round.note() : "",
                kind.tellsOfReceived() ? lines.received(clock.instant(), round.zone()) : lines.due(round.deadline().instant(), round.deadline().dateOnly(), round.zone(), ""), owed, "https://…/b/…");
        return ownAsRecipient(texts.of(kind, language).text(), accounts.current(round.askedBy()), language, name.isEmpty() ? words.in(language).of("letter.example.name") : name, papers);
    }

    private Written ownAsRecipient(LetterText text, Account account, Locale language, String name, LetterFacts.Papers papers) {
        LetterFacts facts = new LetterFacts(name, brand.name(), account.name(), List.of(papers));
        Person person = new Person(account.name(), MailAddress.parse(account.email()));
        LetterSetting setting = common.now();
        return new Written(person, common.replyTo(setting, person, settings.collecting()), text.subjectFor(facts), LetterSettings.signed(setting, text.bodyFor(facts)), language, null);
    }

    private LetterFacts.Papers owed(LetterLines lines, LetterKind kind, Told told, Contact contact) {
        Round round = rounds.opened(told.roundId());
        Board.Row row = told.row();
        List<Item> items = rounds.items(round.id());
        List<ReceivedFile> received = files.ofBasket(row.id());
        List<String> owed = new ArrayList<>();
        for (int i = 0; i < items.size(); i++) {
            lines.owed(kind, items.get(i), row.tiles().get(i), received).ifPresent(owed::add);
        }
        boolean wholeDay = row.extended() || round.deadline().dateOnly();
        return new LetterFacts.Papers(LinkAddress.plain(round.title()), kind == LetterKind.INVITATION ? LinkAddress.plain(round.note()) : "",
                lines.due(row.deadline(), wholeDay, round.zone(), contact.zone()), owed, LinkAddress.mark(row.id()));
    }

    /** What came with a sending, or where the letter is about none, with all of them; and what is still missing. */
    private LetterFacts.Papers received(LetterLines lines, Told told, @Nullable Long submission) {
        Round round = rounds.opened(told.roundId());
        Board.Row row = told.row();
        List<Item> items = rounds.items(round.id());
        List<String> missing = new ArrayList<>();
        for (int i = 0; i < items.size(); i++) {
            if (row.tiles().get(i).owed()) {
                missing.add(LinkAddress.plain(items.get(i).spec().title()));
            }
        }
        String still = missing.isEmpty() ? "" : lines.still(missing);
        if (submission == null) {
            List<String> came = items.stream().filter(item -> row.tiles().get(items.indexOf(item)).standing().satisfied()).map(item -> LinkAddress.plain(item.spec().title())).toList();
            return new LetterFacts.Papers(LinkAddress.plain(round.title()), still, "", came, LinkAddress.mark(row.id()));
        }
        Receipts.Receipt receipt = receipts.finish(submissions.byId(submission), "");
        List<String> came = receipt.files().stream().map(file -> LinkAddress.plain(file.name()) + " (" + LinkAddress.plain(file.item()) + ")").toList();
        return new LetterFacts.Papers(LinkAddress.plain(round.title()), still, lines.receipt(receipt.code(), receipt.at(), round.zone()), came, LinkAddress.mark(row.id()));
    }
}
