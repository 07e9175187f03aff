package oakbasket.server;

import static com.tngtech.archunit.base.DescribedPredicate.not;
import static com.tngtech.archunit.core.domain.JavaClass.Predicates.resideInAnyPackage;
import static com.tngtech.archunit.core.domain.JavaClass.Predicates.simpleNameEndingWith;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;
import static org.assertj.core.api.Assertions.assertThat;

import com.tngtech.archunit.base.DescribedPredicate;
import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.domain.JavaMethodCall;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.lang.ArchCondition;
import com.tngtech.archunit.lang.ArchRule;
import com.tngtech.archunit.lang.ConditionEvents;
import com.tngtech.archunit.lang.SimpleConditionEvent;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.Calendar;
import java.util.Date;
import java.util.List;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.ValueSource;

/** The walls of the house, as docs/architecture.md draws them. Every rule is also tried on classes that break it, so that it is seen to fail. */
class HouseRulesTest {

    private static final JavaClasses ALL = new ClassFileImporter().withImportOption(ImportOption.Predefined.DO_NOT_INCLUDE_TESTS).importPackages("oakbasket");
    private static final JavaClasses BROKEN = new ClassFileImporter().importPackages("oakbasket.server.rulebreakers", "oakbasket.core.rulebreakers");

    private static final String[] HTTP = {"jakarta.servlet..", "org.springframework.http..", "org.springframework.web.."};
    private static final Set<String> CLOCK_READERS = Set.of("java.time.Instant", "java.time.LocalDate", "java.time.LocalTime", "java.time.LocalDateTime", "java.time.ZonedDateTime",
            "java.time.OffsetDateTime", "java.time.Year", "java.time.YearMonth");
    private static final Set<String> DECODERS = Set.of("javax.imageio.ImageReader", "javax.imageio.stream.ImageInputStream", "org.apache.commons.csv.CSVParser", "net.fortuna.ical4j.data.CalendarBuilder", "javax.xml.stream.XMLStreamReader");
    /** Where HTTP is spoken: the packages that do nothing else, and the classes that stand at the door of a capability. */
    private static final DescribedPredicate<JavaClass> AT_THE_DOOR = resideInAnyPackage("oakbasket.server.web..", "oakbasket.server.http..")
            .or(DescribedPredicate.describe("stand at the door", one -> outermost(one).getSimpleName().matches(".*(Controller|Filter|Download|Interceptor)|OpenDesks?|AccountContexts")));

    /** A rule, and how many complaints its breakers cause at least. */
    enum Rule {
        THE_CORE_KNOWS_NOBODY(noClasses().that().resideInAPackage("oakbasket.core..").should().dependOnClassesThat()
                .resideInAnyPackage("oakbasket.server..", "org.springframework..", "jakarta..", "java.sql..", "java.io..", "java.nio.file..", "java.net.http.."), 1),
        NO_CYCLES_BETWEEN_PACKAGES(slices().matching("oakbasket.(**)").should().beFreeOfCycles(), 1),
        NOTHING_IS_LAZY(noClasses().should().dependOnClassesThat().haveFullyQualifiedName("org.springframework.context.annotation.Lazy"), 1),
        NO_INTERFACE_TURNS_AN_ARROW_ROUND(classes().that().resideInAPackage("oakbasket.server..").should(implementOnlyTheirOwnPackagesInterfaces()), 1),
        TABLES_ARE_PRIVATE_TO_THEIR_CAPABILITY(classes().that().haveSimpleNameEndingWith("Table").should().bePackagePrivate(), 1),
        ONLY_TABLES_ASK_THE_DATABASE(noClasses().that(not(simpleNameEndingWith("Table"))).and().resideOutsideOfPackage("oakbasket.server.storage..").should()
                .dependOnClassesThat().haveFullyQualifiedName("org.springframework.jdbc.core.simple.JdbcClient"), 1),
        CONTROLLERS_TOUCH_NO_TABLE(noClasses().that().haveSimpleNameEndingWith("Controller").should().dependOnClassesThat(DescribedPredicate.describe("are tables or parts of one",
                one -> outermost(one).getSimpleName().matches("(?!Imported).*Table"))), 1),
        NOBODY_CALLS_A_CONTROLLER(noClasses().that().haveSimpleNameNotEndingWith("Controller").and(DescribedPredicate.describe("are no part of one",
                one -> !outermost(one).getSimpleName().endsWith("Controller"))).should().dependOnClassesThat(
                resideInAnyPackage("oakbasket..").and(simpleNameEndingWith("Controller"))), 1),
        HTTP_STOPS_AT_THE_DOOR(noClasses().that(not(AT_THE_DOOR)).should().dependOnClassesThat().resideInAnyPackage(HTTP), 1),
        /** The share reads XML that is the request itself: bounded, without entities, of somebody who is signed in. */
        STRANGERS_BYTES_ARE_DECODED_IN_CHILDREN(noClasses().that().resideOutsideOfPackages("oakbasket.server.decode.work..", "oakbasket.server.dav..").should().dependOnClassesThat(resideInAnyPackage("org.jsoup..", "org.apache.poi..",
                "javax.swing..", "org.apache.pdfbox..", "ezvcard.io.text..")
                .or(DescribedPredicate.describe("read pictures, tables, calendars or XML", one -> DECODERS.contains(one.getName())))), 1),
        ONLY_A_CHILD_DOES_THE_WORK_OF_ONE(noClasses().that().doNotHaveFullyQualifiedName("oakbasket.server.decode.ChildMain").and().resideOutsideOfPackage("oakbasket.server.decode.work").should().callMethodWhere(DescribedPredicate.describe("does work of a child",
                call -> call.getName().equals("work") && call.getTargetOwner().getPackageName().equals("oakbasket.server.decode.work"))), 1),
        THE_TIME_IS_ASKED_OF_THE_CLOCK(noClasses().that().resideInAPackage("oakbasket..").and().resideOutsideOfPackage("oakbasket.server.clock..").should()
                .callMethodWhere(asksTheMachine()).orShould().callConstructor(Date.class).orShould().callMethod(Calendar.class, "getInstance"), 8);

        private final ArchRule rule;
        private final int complaints;

        Rule(ArchRule rule, int complaints) {
            this.rule = rule;
            this.complaints = complaints;
        }
    }

    @ParameterizedTest
    @EnumSource(Rule.class)
    void theHouseIsBuiltAsItIsDrawn(Rule rule) {
        rule.rule.check(ALL);
    }

    @ParameterizedTest
    @EnumSource(Rule.class)
    void whoBreaksARuleIsTold(Rule rule) {
        assertThat(rule.rule.evaluate(BROKEN).getFailureReport().getDetails()).hasSizeGreaterThanOrEqualTo(rule.complaints);
    }

    /** Words for people stand in message files. What is left are words for whoever runs or writes the program: logs, failures, the API description; and made-up data. */
    @Test
    void noSentenceForPeopleStandsInJava() throws IOException {
        List<String> found = new ArrayList<>();
        for (String root : List.of("../core/src/main/java", "src/main/java")) {
            try (Stream<Path> files = Files.walk(Path.of(root))) {
                for (Path file : files.filter(path -> path.toString().endsWith(".java") && !path.toString().contains("/demo/")).toList()) {
                    sentences(Files.readString(file)).forEach(sentence -> found.add(file.getFileName() + ": " + sentence));
                }
            }
        }
        assertThat(found).isEmpty();
    }

    @ParameterizedTest
    @ValueSource(strings = {"return \"Use at most 5 characters\";", "errors.add(new Fault(\"name\", \"Please give your name\"));", "x = y ? \"no such thing\" : \"\";",
        "throw Problem.field(\"a\", \"is not a date\");"})
    void aSentenceForPeopleIsFound(String code) {
        assertThat(sentences(code)).isNotEmpty();
    }

    private static final Pattern FOR_THE_WORKSHOP = Pattern.compile("LOG\\.\\w+\\([^;]*;|new \\w*(?:Exception|Refused)\\([^;]*;|super\\([^;]*;|@Operation\\([^)]*\\)|\\.description\\([^;]*;"
            + "|jdbc\\.sql\\([^;]*;|\"\"\"[\\s\\S]*?\"\"\"|//[^\\n]*|/\\*[\\s\\S]*?\\*/|@(?:Sche|Default)\\w+\\([^)]*\\)|Pattern\\.compile\\([^;]*;|\"(?:\\s*(?:SELECT|DELETE|UPDATE|INSERT|FROM|basket_id)\\b[^\"]*|[EMdy]+[ ,][^\"]*yyyy[^\"]*)\"");
    private static final Pattern SENTENCE = Pattern.compile("\"(?:[^\"\\\\\\n]|\\\\.)*\\b\\p{L}{2,} \\p{Ll}{2,}\\b(?:[^\"\\\\\\n]|\\\\.)*\"");

    private static List<String> sentences(String code) {
        Matcher matcher = SENTENCE.matcher(FOR_THE_WORKSHOP.matcher(code).replaceAll("").replace("\"\"", "EMPTY"));
        return matcher.results().map(found -> found.group()).toList();
    }

    private static JavaClass outermost(JavaClass one) {
        JavaClass outer = one;
        while (outer.getEnclosingClass().isPresent()) {
            outer = outer.getEnclosingClass().get();
        }
        return outer;
    }

    private static ArchCondition<JavaClass> implementOnlyTheirOwnPackagesInterfaces() {
        return new ArchCondition<>("implement only interfaces of their own package") {
            @Override
            public void check(JavaClass one, ConditionEvents events) {
                one.getRawInterfaces().stream().filter(made -> made.getPackageName().startsWith("oakbasket.server") && !made.getPackageName().equals(one.getPackageName()))
                        .forEach(made -> events.add(SimpleConditionEvent.violated(one, one.getName() + " implements " + made.getName())));
            }
        };
    }

    private static DescribedPredicate<JavaMethodCall> asksTheMachine() {
        return DescribedPredicate.describe("what time it is", call -> {
            String owner = call.getTargetOwner().getFullName();
            boolean reads = call.getName().equals("now") && CLOCK_READERS.contains(owner)
                    && call.getTarget().getRawParameterTypes().stream().noneMatch(type -> type.isEquivalentTo(Clock.class));
            return reads || owner.equals("java.lang.System") && call.getName().equals("currentTimeMillis") || owner.equals("java.time.Clock") && call.getName().startsWith("system");
        });
    }
}
