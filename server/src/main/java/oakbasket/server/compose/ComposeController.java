package oakbasket.server.compose;

import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import oakbasket.core.fault.Fault;
import oakbasket.core.identity.PeopleLines;
import oakbasket.core.naming.NameFacts;
import oakbasket.core.naming.NameFactsBuilder;
import oakbasket.core.naming.NamingPattern;
import oakbasket.core.naming.PatternProblem;
import oakbasket.server.Settings;
import oakbasket.server.problem.Problem;
import oakbasket.server.words.Words;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** Reads what is typed or pasted while a sheet is composed; stores nothing. */
@RestController
class ComposeController {

    record Lines(@Nullable String text) {
    }

    record ReadPerson(String name, String email) {
    }

    record ReadPeople(List<ReadPerson> people, List<PeopleLines.Refused> refused, int merged) {
    }

    record Patterns(@Nullable String folderPattern, @Nullable String namePattern, @Nullable String title, @Nullable String zone, @Nullable String item,
            @Nullable String person, @Nullable String email) {
    }

    record PatternExample(String path, List<Fault> errors) {
    }

    private static final int LONGEST_PASTE = 4_000_000;

    private final Clock clock;
    private final Words words;
    private final Settings settings;

    ComposeController(Clock clock, Words words, Settings settings) {
        this.clock = clock;
        this.words = words;
        this.settings = settings;
    }

    /** Reads typed or pasted lines; stores nothing. */
    @PostMapping("/api/people/read")
    ReadPeople people(@RequestBody Lines lines) {
        String text = lines.text() == null ? "" : lines.text();
        if (text.length() > LONGEST_PASTE) {
            throw Problem.refused("paste-too-long", LONGEST_PASTE);
        }
        PeopleLines read = PeopleLines.parse(text);
        return new ReadPeople(read.people().stream().map(p -> new ReadPerson(p.name(), p.address().text())).toList(), read.refused(), read.merged());
    }

    /** Shows where one made-up file would go, or what is wrong with the patterns; stores nothing. */
    @PostMapping("/api/patterns/example")
    PatternExample example(@RequestBody Patterns typed) {
        List<Fault> errors = new ArrayList<>();
        NameFacts facts = exampleFacts(typed);
        List<String> parts = new ArrayList<>();
        try {
            parts.add(NamingPattern.folders(or(typed.folderPattern(), "")).render(facts));
        } catch (PatternProblem problem) {
            errors.add(problem.at("folderPattern"));
        }
        try {
            parts.add(NamingPattern.fileName(or(typed.namePattern(), "")).render(facts));
        } catch (PatternProblem problem) {
            errors.add(problem.at("namePattern"));
        }
        return new PatternExample(errors.isEmpty() ? String.join("/", parts) : "", errors);
    }

    private NameFacts exampleFacts(Patterns typed) {
        Instant now = clock.instant();
        ZoneId zone = ZoneId.getAvailableZoneIds().contains(or(typed.zone(), "")) ? ZoneId.of(or(typed.zone(), "")) : settings.zone();
        return NameFactsBuilder.stagedBuilder().round(or(typed.title(), words.of("example.round"))).group(words.of("example.group"))
                .person(or(typed.person(), words.of("example.person"))).organisation(words.of("example.organisation"))
                .email(or(typed.email(), words.of("example.email"))).reference(words.of("example.reference"))
                .item(or(typed.item(), words.of("example.item"))).original(words.of("example.file")).received(now)
                .deadline(LocalDate.ofInstant(now, zone).plusDays(14).atTime(17, 0).atZone(zone).toInstant()).zone(zone).receipt("7K3M-Q9XT-4R2B")
                .number(1).build();
    }

    private static String or(@Nullable String given, String otherwise) {
        return given == null || given.isBlank() ? otherwise : given;
    }
}
