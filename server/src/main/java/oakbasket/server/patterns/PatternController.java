package oakbasket.server.patterns;

import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.function.Predicate;
import java.util.stream.Stream;
import oakbasket.core.fault.Fault;
import oakbasket.core.naming.ClashNumber;
import oakbasket.core.naming.NameFacts;
import oakbasket.core.naming.NameFactsBuilder;
import oakbasket.core.naming.NameField;
import oakbasket.core.naming.NamingPattern;
import oakbasket.core.naming.PatternProblem;
import oakbasket.core.team.Permission;
import oakbasket.server.Settings;
import oakbasket.server.basket.Basket;
import oakbasket.server.basket.Baskets;
import oakbasket.server.contact.Contact;
import oakbasket.server.contact.Contacts;
import oakbasket.server.round.Item;
import oakbasket.server.round.Round;
import oakbasket.server.round.Rounds;
import oakbasket.server.security.Needs;
import oakbasket.server.words.Words;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** Naming patterns while they are typed: their fields, what is wrong with them, and what they make of real and of awkward files. Stores nothing. */
@RestController
@Needs(Permission.CHANGE)
class PatternController {

    /**
     * Patterns as typed.
     *
     * @param roundId whose people and documents are examples; null for a round that is not opened yet
     */
    record Patterns(@Nullable String folderPattern, @Nullable String namePattern, @Nullable String title, @Nullable String zone, @Nullable String item,
            @Nullable String person, @Nullable String email, @Nullable Long roundId) {
    }

    /** Where one file would go; {@code what} is {@code plain}, {@code clash}, {@code long}, {@code script} or {@code missing}. */
    record NameExample(String what, String original, String path) {
    }

    record PatternExample(String path, List<Fault> errors, List<NameExample> examples) {
    }

    /** A field with what it stands for in words. */
    record PatternFieldWords(String written, String words, boolean takesFormat) {
    }

    private static final int LONG = 240;
    private static final int DAYS_AHEAD = 14;

    private final Rounds rounds;
    private final Baskets baskets;
    private final Contacts contacts;
    private final Clock clock;
    private final Words words;
    private final Settings settings;

    PatternController(Rounds rounds, Baskets baskets, Contacts contacts, Clock clock, Words words, Settings settings) {
        this.rounds = rounds;
        this.baskets = baskets;
        this.contacts = contacts;
        this.clock = clock;
        this.words = words;
        this.settings = settings;
    }

    @GetMapping("/api/patterns/fields")
    List<PatternFieldWords> fields() {
        return Stream.of(NameField.values()).map(field -> new PatternFieldWords(field.written(), words.of("field." + field.name()), field.takesFormat())).toList();
    }

    /** Shows where files would go, or what is wrong with the patterns. */
    @PostMapping("/api/patterns/example")
    PatternExample example(@RequestBody Patterns typed) {
        List<Fault> errors = new ArrayList<>();
        NamingPattern folder = null;
        NamingPattern name = null;
        try {
            folder = NamingPattern.folders(or(typed.folderPattern(), ""));
        } catch (PatternProblem problem) {
            errors.add(problem.at("folderPattern"));
        }
        try {
            name = NamingPattern.fileName(or(typed.namePattern(), ""));
        } catch (PatternProblem problem) {
            errors.add(problem.at("namePattern"));
        }
        if (folder == null || name == null) {
            return new PatternExample("", errors, List.of());
        }
        List<NameExample> examples = examples(folder, name, typed);
        return new PatternExample(examples.get(0).path(), errors, examples);
    }

    private List<NameExample> examples(NamingPattern folder, NamingPattern name, Patterns typed) {
        List<NameFacts> people = people(typed);
        NameFacts plain = people.get(0);
        String first = path(folder, name, plain);
        NameFacts script = find(people, one -> one.person().codePoints().anyMatch(c -> c > 0x24F && Character.isLetter(c)), NameFactsBuilder.builder(plain).person(words.of("example.person-script"))
                .original(words.of("example.file-script")).build());
        NameFacts missing = find(people, one -> one.organisation().isBlank() || one.group().isBlank() || one.reference().isBlank(), NameFactsBuilder.builder(plain).organisation("").group("").reference("").build());
        NameFacts longest = people.stream().max(Comparator.comparingInt(one -> one.person().length())).orElse(plain);
        NameFacts lengthy = NameFactsBuilder.builder(longest).original("a".repeat(LONG) + ".pdf").build();
        return List.of(new NameExample("plain", plain.original(), first),
                new NameExample("clash", plain.original(), folder.render(plain) + "/" + ClashNumber.on(name.render(plain), 2)),
                new NameExample("long", lengthy.original(), path(folder, name, lengthy)),
                new NameExample("script", script.original(), path(folder, name, script)),
                new NameExample("missing", missing.original(), path(folder, name, missing)));
    }

    private static String path(NamingPattern folder, NamingPattern name, NameFacts facts) {
        return folder.render(facts) + "/" + name.render(facts);
    }

    private static NameFacts find(List<NameFacts> people, Predicate<NameFacts> fits, NameFacts otherwise) {
        return people.stream().filter(fits).findFirst().orElse(otherwise);
    }

    /** People of the round with a document of it, or one who is made up. */
    private List<NameFacts> people(Patterns typed) {
        NameFacts made = madeUp(typed);
        if (typed.roundId() == null || typed.roundId() == 0) {
            return List.of(made);
        }
        Round round = rounds.opened(typed.roundId());
        String item = rounds.items(round.id()).stream().map(Item::spec).map(spec -> spec.title()).findFirst().orElse(made.item());
        List<Contact> asked = List.copyOf(contacts.byIds(baskets.ofRound(round.id()).stream().map(Basket::contactId).toList()).values());
        List<NameFacts> people = asked.stream().sorted(Comparator.comparing(Contact::id)).map(contact -> NameFactsBuilder.builder(made).round(round.title()).person(contact.name()).email(contact.email())
                .group(contact.group()).organisation(contact.organisation()).reference(contact.reference()).item(item).zone(round.zone()).deadline(round.deadline().instant()).build()).toList();
        return people.isEmpty() ? List.of(made) : people;
    }

    private NameFacts madeUp(Patterns typed) {
        Instant now = clock.instant();
        ZoneId zone = ZoneId.getAvailableZoneIds().contains(or(typed.zone(), "")) ? ZoneId.of(or(typed.zone(), "")) : settings.zone();
        return NameFactsBuilder.stagedBuilder().round(or(typed.title(), words.of("example.round"))).group(words.of("example.group")).groupless(words.of("folder.no-group"))
                .person(or(typed.person(), words.of("example.person"))).organisation(words.of("example.organisation"))
                .email(or(typed.email(), words.of("example.email"))).reference(words.of("example.reference")).sender("")
                .item(or(typed.item(), words.of("example.item"))).kind(words.of("kind.PDF")).original(words.of("example.file")).received(now)
                .deadline(LocalDate.ofInstant(now, zone).plusDays(DAYS_AHEAD).atTime(17, 0).atZone(zone).toInstant()).zone(zone).receipt("7K3M-Q9XT-4R2B")
                .number(1).build();
    }

    private static String or(@Nullable String given, String otherwise) {
        return given == null || given.isBlank() ? otherwise : given;
    }
}
