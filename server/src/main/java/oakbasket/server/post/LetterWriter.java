package oakbasket.server.post;

import java.time.Clock;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.time.format.TextStyle;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import oakbasket.core.identity.MailAddress;
import oakbasket.core.identity.Person;
import oakbasket.core.letter.LetterFacts;
import oakbasket.core.letter.LetterKind;
import oakbasket.core.letter.LetterText;
import oakbasket.core.standing.ItemStanding;
import oakbasket.core.standing.Review;
import oakbasket.core.standing.Tile;
import oakbasket.server.Settings;
import oakbasket.server.account.Account;
import oakbasket.server.account.AccountService;
import oakbasket.server.board.Board;
import oakbasket.server.contact.Contact;
import oakbasket.server.contact.Contacts;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.round.Item;
import oakbasket.server.round.Round;
import oakbasket.server.round.Rounds;
import oakbasket.server.words.Words;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Writes letters: what is owed at this moment, in the office's words. */
@Component
class LetterWriter {

    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("EEEE d MMMM yyyy", Locale.UK);
    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("HH:mm", Locale.UK);

    /** A basket that a letter tells of, as it stands now. */
    record Told(long roundId, Board.Row row) {
    }

    /**
     * A letter in words; links stand in the body as marks.
     *
     * @param replyTo who reads answers
     * @param calendar the deadlines as an iCalendar object; null when none goes along
     */
    record Written(Person to, Person replyTo, String subject, String body, @Nullable String calendar) {
    }

    private final Rounds rounds;
    private final Contacts contacts;
    private final ReceivedFiles files;
    private final AccountService accounts;
    private final LetterTexts texts;
    private final LetterSettings common;
    private final Words words;
    private final Settings settings;
    private final Clock clock;

    LetterWriter(Rounds rounds, Contacts contacts, ReceivedFiles files, AccountService accounts, LetterTexts texts, LetterSettings common, Words words, Settings settings, Clock clock) {
        this.rounds = rounds;
        this.contacts = contacts;
        this.files = files;
        this.accounts = accounts;
        this.texts = texts;
        this.common = common;
        this.words = words;
        this.settings = settings;
        this.clock = clock;
    }

    /** Writes a letter about these baskets, which belong to one person. */
    Written write(LetterKind kind, List<Told> baskets) {
        Contact contact = contacts.byId(baskets.get(0).row().contactId());
        List<LetterFacts.Papers> papers = new ArrayList<>();
        Account asking = accounts.current(rounds.opened(baskets.get(0).roundId()).askedBy());
        for (Told told : baskets) {
            papers.add(papers(kind, rounds.opened(told.roundId()), told.row(), contact));
        }
        Person coordinator = new Person(asking.name(), MailAddress.parse(asking.email()));
        LetterFacts facts = new LetterFacts(LinkAddress.plain(contact.name()), LinkAddress.plain(settings.office()), LinkAddress.plain(asking.name()), papers);
        LetterText text = texts.of(kind).text();
        LetterSetting setting = common.now();
        return new Written(new Person(contact.name(), MailAddress.parse(contact.email())), common.replyTo(setting, coordinator), text.subjectFor(facts), LetterSettings.signed(setting, text.bodyFor(facts)),
                setting.calendar() && kind != LetterKind.OVERDUE ? calendar(baskets) : null);
    }

    private String calendar(List<Told> baskets) {
        return DeadlineEntries.of(baskets.stream().map(told -> {
            Round round = rounds.opened(told.roundId());
            boolean wholeDay = told.row().extended() || round.deadline().dateOnly();
            return new DeadlineEntries.Entry(told.row().id(), words.of("letter.calendar", round.title(), settings.office()), told.row().deadline(), wholeDay ? round.zone() : null);
        }).toList(), settings.letterSender(), clock.instant());
    }

    /** A text with made-up facts, to look at. */
    Written example(LetterText text, Account account) {
        List<String> items = List.of(words.of("letter.example.items").split("\n"));
        LetterFacts.Papers papers = new LetterFacts.Papers(words.of("letter.example.round"), "", due(Instant.parse("2027-03-25T17:00:00Z"), false, settings.zone(), ""), items,
                "https://oak.example.org/b/…");
        LetterFacts facts = new LetterFacts(words.of("letter.example.name"), settings.office(), account.name(), List.of(papers));
        Person person = new Person(account.name(), MailAddress.parse(account.email()));
        LetterSetting setting = common.now();
        return new Written(person, common.replyTo(setting, person), text.subjectFor(facts), LetterSettings.signed(setting, text.bodyFor(facts)), null);
    }

    /**
     * The letter of a round that may still be a draft, to look at.
     *
     * @param name whom it addresses; empty for a made-up one
     */
    Written draft(LetterKind kind, Round round, List<Item> items, String name) {
        Account asking = accounts.current(round.askedBy());
        List<String> owed = items.stream().map(item -> item.spec().required() ? item.spec().title() : words.of("letter.optional", item.spec().title())).toList();
        LetterFacts.Papers papers = new LetterFacts.Papers(round.title(), kind == LetterKind.INVITATION ? round.note() : "",
                due(round.deadline().instant(), round.deadline().dateOnly(), round.zone(), ""), owed, "https://…/b/…");
        LetterFacts facts = new LetterFacts(name.isEmpty() ? words.of("letter.example.name") : name, settings.office(), asking.name(), List.of(papers));
        Person person = new Person(asking.name(), MailAddress.parse(asking.email()));
        LetterText text = texts.of(kind).text();
        LetterSetting setting = common.now();
        return new Written(person, common.replyTo(setting, person), text.subjectFor(facts), LetterSettings.signed(setting, text.bodyFor(facts)), null);
    }

    private LetterFacts.Papers papers(LetterKind kind, Round round, Board.Row row, Contact contact) {
        List<Item> items = rounds.items(round.id());
        List<ReceivedFile> received = files.ofBasket(row.id());
        List<String> owed = new ArrayList<>();
        for (int i = 0; i < items.size(); i++) {
            line(kind, items.get(i), row.tiles().get(i), received).ifPresent(owed::add);
        }
        boolean wholeDay = row.extended() || round.deadline().dateOnly();
        return new LetterFacts.Papers(LinkAddress.plain(round.title()), kind == LetterKind.INVITATION ? LinkAddress.plain(round.note()) : "",
                due(row.deadline(), wholeDay, round.zone(), contact.zone()), owed, LinkAddress.mark(row.id()));
    }

    /** What the letter says of one item; empty when it is not owed. Optional ones are named only when somebody is first asked, or theirs was returned. */
    private Optional<String> line(LetterKind kind, Item item, Tile tile, List<ReceivedFile> received) {
        ItemStanding standing = tile.standing();
        String title = LinkAddress.plain(item.spec().title());
        if (standing == ItemStanding.RETURNED) {
            String reason = received.stream().filter(file -> file.itemId() == item.id() && file.review() == Review.RETURNED).reduce((one, later) -> later)
                    .map(ReceivedFile::reviewReason).orElse("");
            return Optional.of(words.of("letter.returned", title, LinkAddress.plain(reason)));
        }
        if (!tile.owed() && (standing.satisfied() || standing == ItemStanding.NOT_OWED || kind != LetterKind.INVITATION)) {
            return Optional.empty();
        }
        if (!item.spec().required()) {
            return Optional.of(words.of("letter.optional", title));
        }
        return Optional.of(standing == ItemStanding.PART ? words.of("letter.part", title, tile.files(), item.spec().minFiles()) : title);
    }

    /** The deadline in words, in the round's time and where it differs in the person's. */
    private String due(Instant deadline, boolean wholeDay, ZoneId zone, String theirs) {
        String place = zone.getDisplayName(TextStyle.FULL, Locale.UK);
        var at = deadline.atZone(zone);
        String day = wholeDay ? words.of("letter.due-day", DAY.format(at), place) : words.of("letter.due", DAY.format(at), TIME.format(at), place);
        if (theirs.isEmpty() || ZoneId.of(theirs).getRules().getOffset(deadline).equals(at.getOffset())) {
            return day;
        }
        var there = deadline.atZone(ZoneId.of(theirs));
        return day + words.of("letter.yours", DAY.format(there), TIME.format(there));
    }
}
