package oakbasket.core.filing;

import java.util.List;
import java.util.Set;
import java.util.stream.Stream;
import oakbasket.core.filekind.FileKind;
import oakbasket.core.identity.Identity;

/** What a condition asks about. */
public enum Subject {
    ROUND(Tests.TEXT), ITEM(Tests.TEXT), GROUP(Tests.TEXT), PERSON(Tests.TEXT), EMAIL(Tests.TEXT), ORGANISATION(Tests.TEXT), REFERENCE(Tests.TEXT),
    /** The name the file had at the sender's. */
    NAME(Tests.TEXT),
    /** The name of a {@link FileKind}, or {@link #NO_KIND}. */
    KIND(Tests.CHOICE),
    /** The name of an {@link Identity}. */
    IDENTITY(Tests.CHOICE),
    /** The name of a {@link Source}. */
    SOURCE(Tests.CHOICE),
    /** {@link #YES} or {@link #NO}. */
    LATE(Tests.CHOICE),
    /** In KiB. */
    SIZE(Tests.AMOUNT);

    /** What KIND says of a file of no kind. */
    public static final String NO_KIND = "NONE";
    public static final String YES = "YES";
    public static final String NO = "NO";

    private static final class Tests {
        static final Set<Test> TEXT = Set.of(Test.IS, Test.IS_NOT, Test.CONTAINS, Test.CONTAINS_NOT, Test.BEGINS, Test.ENDS, Test.MATCHES);
        static final Set<Test> CHOICE = Set.of(Test.IS, Test.IS_NOT);
        static final Set<Test> AMOUNT = Set.of(Test.AT_LEAST, Test.AT_MOST);
    }

    private final Set<Test> tests;

    Subject(Set<Test> tests) {
        this.tests = tests;
    }

    /** What can be asked about it. */
    public Set<Test> tests() {
        return tests;
    }

    /** Every value that it can have; empty where it is any text or number. */
    public List<String> choices() {
        return switch (this) {
            case KIND -> Stream.concat(names(FileKind.values()), Stream.of(NO_KIND)).toList();
            case IDENTITY -> names(Identity.values()).toList();
            case SOURCE -> names(Source.values()).toList();
            case LATE -> List.of(YES, NO);
            default -> List.of();
        };
    }

    private static Stream<String> names(Enum<?>[] values) {
        return Stream.of(values).map(Enum::name);
    }

    boolean isText() {
        return tests == Tests.TEXT;
    }
}
