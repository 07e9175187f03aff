package oakbasket.server.upload;

import java.util.Arrays;
import java.util.stream.Collectors;
import oakbasket.core.filekind.FileKind;
import oakbasket.core.filekind.KindCheck;
import oakbasket.server.problem.Problem;
import oakbasket.server.round.Item;

/** Says plainly why a kind of file is not taken. */
final class KindRefusal {

    private KindRefusal() {
    }

    /**
     * The refusal.
     *
     * @param mediaType what the content shows; empty where only the name was looked at
     */
    static Problem of(KindCheck.Verdict verdict, String name, Item item, String mediaType) {
        return switch (verdict) {
            case KIND_NOT_WANTED -> Problem.refused("kind-not-wanted", name,
                    item.spec().kinds().stream().flatMap(kind -> kind.endings().stream()).sorted().map(e -> "." + e).collect(Collectors.joining(", ")));
            case DISGUISED -> Problem.refused("kind-disguised", name, seen(mediaType));
            case PROGRAM -> Problem.refused("kind-program", name);
            case ACTIVE -> Problem.refused("kind-active", name);
            case ACCEPTED -> throw new IllegalArgumentException("Accepted is no refusal");
        };
    }

    /** What the content was seen to be: in words where it is of a kind that has some. */
    private static Object seen(String mediaType) {
        if (mediaType.equals("application/octet-stream")) {
            return new Problem.Word("seen.UNKNOWN");
        }
        return Arrays.stream(FileKind.values()).filter(kind -> kind.holds(mediaType)).findFirst().map(kind -> (Object) new Problem.Word("seen." + kind.name()))
                .orElseGet(() -> mediaType.startsWith("text/") ? new Problem.Word("seen.TEXT") : mediaType);
    }
}
