package oakbasket.server.sharing;

import java.util.List;
import java.util.Objects;
import java.util.Set;
import oakbasket.core.team.Share;
import oakbasket.server.problem.Problem;
import org.jspecify.annotations.Nullable;

/** How somebody wants something to be shared. */
public record WantedSharing(@Nullable Long owner, @Nullable Boolean wholeOffice, @Nullable List<Long> with) {

    private static final int MOST_WITH = 1_000;

    /** It as a share. @throws Problem with status 400 when something is left out */
    public Share share() {
        List<Long> others = with == null ? List.of() : with;
        if (owner == null || wholeOffice == null || others.size() > MOST_WITH || others.stream().anyMatch(Objects::isNull)) {
            throw Problem.unreadable("unreadable");
        }
        return new Share(owner, wholeOffice, Set.copyOf(others));
    }
}
