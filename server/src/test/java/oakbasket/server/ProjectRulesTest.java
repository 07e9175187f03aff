package oakbasket.server;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static org.assertj.core.api.Assertions.assertThat;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.base.DescribedPredicate;
import com.tngtech.archunit.core.domain.JavaMethodCall;
import com.tngtech.archunit.lang.ArchRule;
import java.util.Set;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Properties;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** The rules of docs/architecture.md that can be checked by a machine. */
class ProjectRulesTest {

    private static final JavaClasses ALL = new ClassFileImporter().withImportOption(ImportOption.Predefined.DO_NOT_INCLUDE_TESTS).importPackages("oakbasket");

    @Test
    void theCoreKnowsNobody() {
        noClasses().that().resideInAPackage("oakbasket.core..").should().dependOnClassesThat()
                .resideInAnyPackage("oakbasket.server..", "org.springframework..", "jakarta..", "java.sql..", "java.io..", "java.nio.file..", "java.net.http..").check(ALL);
    }

    @Test
    void tablesBelongToTheirCapability() {
        classes().that().haveSimpleNameEndingWith("Table").should().bePackagePrivate().check(ALL);
        noClasses().that().haveSimpleNameNotEndingWith("Table").and().resideOutsideOfPackage("..storage..").should()
                .dependOnClassesThat().haveFullyQualifiedName("org.springframework.jdbc.core.simple.JdbcClient").check(ALL);
        noClasses().that().haveSimpleNameEndingWith("Service").or().haveSimpleNameEndingWith("Table").should().dependOnClassesThat().haveSimpleNameEndingWith("Controller").check(ALL);
    }

    @Test
    void timeIsAskedOfTheClock() {
        ASKS_THE_MACHINE.check(ALL);
        assertThat(ASKS_THE_MACHINE.evaluate(new ClassFileImporter().importClasses(AsksTheMachine.class)).getFailureReport().getDetails())
                .as("the rule can fail, for each way to ask").hasSizeGreaterThanOrEqualTo(8);
    }

    private static final Set<String> CLOCK_READERS = Set.of("java.time.Instant", "java.time.LocalDate", "java.time.LocalTime", "java.time.LocalDateTime", "java.time.ZonedDateTime",
            "java.time.OffsetDateTime", "java.time.Year", "java.time.YearMonth");

    /** What time it is stands in one place; how long something took may be asked of the machine. */
    private static final ArchRule ASKS_THE_MACHINE = noClasses().that().resideInAPackage("oakbasket..").and().resideOutsideOfPackage("oakbasket.server.clock..").should()
            .callMethodWhere(new DescribedPredicate<JavaMethodCall>("what time it is") {
                @Override
                public boolean test(JavaMethodCall call) {
                    String owner = call.getTargetOwner().getFullName();
                    boolean reads = call.getName().equals("now") && CLOCK_READERS.contains(owner) && call.getTarget().getRawParameterTypes().stream().noneMatch(type -> type.isEquivalentTo(java.time.Clock.class));
                    return reads || owner.equals("java.lang.System") && call.getName().equals("currentTimeMillis")
                            || owner.equals("java.time.Clock") && call.getName().startsWith("system");
                }
            }).orShould().callConstructor(java.util.Date.class).orShould().callMethod(java.util.Calendar.class, "getInstance");

    /** Breaks the rule in every way, so that it is seen to be one. */
    static final class AsksTheMachine {
        Object[] ways() {
            return new Object[] {java.time.Instant.now(), java.time.LocalDate.now(), java.time.LocalTime.now(), java.time.LocalDateTime.now(), java.time.ZonedDateTime.now(),
                System.currentTimeMillis(), new java.util.Date(), java.util.Calendar.getInstance(), java.time.Clock.systemUTC()};
        }
    }

    @Test
    void everyProblemHasItsWords() throws IOException {
        Properties words = new Properties();
        try (var reader = Files.newBufferedReader(Path.of("src/main/resources/messages/problems.properties"))) {
            words.load(reader);
        }
        Pattern code = Pattern.compile("(?:unreadable|refused|notFound|conflict|number)\\([^\"\\n]*\"([a-z-]+)\"|Problem\\.of\\([^,]+, \"([a-z-]+)\"");
        TreeSet<String> used = new TreeSet<>();
        try (Stream<Path> sources = Files.walk(Path.of("src/main/java"))) {
            for (Path source : sources.filter(path -> path.toString().endsWith(".java")).toList()) {
                Matcher matcher = code.matcher(Files.readString(source));
                while (matcher.find()) {
                    used.add(matcher.group(1) != null ? matcher.group(1) : matcher.group(2));
                }
            }
        }
        assertThat(used).hasSizeGreaterThan(40).allSatisfy(one -> assertThat(words).containsKeys(one + ".title", one + ".detail"));
    }

    @Test
    void theGlossaryNamesClassesThatExist() throws IOException {
        Matcher name = Pattern.compile("`([a-z]+)\\.([A-Z][A-Za-z]+)`").matcher(Files.readString(Path.of("../docs/glossary.md")));
        List<String> named = name.results().map(found -> found.group(1) + "/" + found.group(2) + ".java").toList();
        assertThat(named).hasSizeGreaterThan(50).allMatch(file -> Files.exists(Path.of("../core/src/main/java/oakbasket/core", file))
                || Files.exists(Path.of("src/main/java/oakbasket/server", file)));
    }

    /** The committed description is what the interface's types are made from. Write it anew with: UPDATE_OPENAPI=1 ./test.sh -pl core,server */
    @Test
    void theCommittedApiDescriptionIsTrue() throws IOException {
        JsonNode live = Http.desk().get("/api/openapi.json").json();
        Path committed = Path.of("../docs/openapi.json");
        if (System.getenv("UPDATE_OPENAPI") != null) {
            Files.writeString(committed, live.toPrettyString() + "\n");
        }
        assertThat(Http.JSON.readTree(Files.readString(committed))).isEqualTo(live);
    }
}
