package oakbasket.server;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static org.assertj.core.api.Assertions.assertThat;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.domain.JavaModifier;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
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
        noClasses().that().resideInAPackage("oakbasket..").should().callMethod(java.time.Instant.class, "now").orShould().callMethod(java.time.LocalDate.class, "now")
                .orShould().callMethod(java.time.ZonedDateTime.class, "now").check(ALL);
        classes().that().areRecords().should().haveModifier(JavaModifier.FINAL).check(ALL);
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
