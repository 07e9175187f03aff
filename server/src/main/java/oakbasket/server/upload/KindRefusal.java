package oakbasket.server.upload;

import java.util.stream.Collectors;
import oakbasket.core.filekind.KindCheck;
import oakbasket.server.problem.Problem;
import oakbasket.server.round.Item;

/** Says plainly why a kind of file is not taken. */
final class KindRefusal {

    private KindRefusal() {
    }

    static Problem of(KindCheck.Verdict verdict, String name, Item item) {
        return switch (verdict) {
            case KIND_NOT_WANTED -> Problem.refused("kind-not-wanted", name,
                    item.spec().kinds().stream().flatMap(kind -> kind.endings().stream()).sorted().map(e -> "." + e).collect(Collectors.joining(", ")));
            case DISGUISED -> Problem.refused("kind-disguised", name);
            case PROGRAM -> Problem.refused("kind-program", name);
            case ACTIVE -> Problem.refused("kind-active", name);
            case ACCEPTED -> throw new IllegalArgumentException("Accepted is no refusal");
        };
    }
}
