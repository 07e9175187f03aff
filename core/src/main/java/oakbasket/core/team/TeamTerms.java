package oakbasket.core.team;

import oakbasket.core.fault.FaultyValue;
import org.jspecify.annotations.Nullable;

/**
 * What an office has settled about its coordinators.
 *
 * @param coordinatorsMakeOpenLinks whether they, too, may make links that anybody who holds them can use
 * @param coordinatorsHandOut whether they, too, may hand files out
 * @param mostLiveLinks how many links of one person's rounds and parcels may live at once, from 1 to {@link #MOST}; null for no limit
 */
public record TeamTerms(boolean coordinatorsMakeOpenLinks, boolean coordinatorsHandOut, @Nullable Integer mostLiveLinks) {

    /** As long as nobody settled anything. */
    public static final TeamTerms OPEN = new TeamTerms(true, true, null);

    /** The largest limit that can be set. */
    public static final int MOST = 1_000_000;

    /** @throws FaultyValue when the limit cannot be used */
    public TeamTerms {
        if (mostLiveLinks != null && (mostLiveLinks < 1 || mostLiveLinks > MOST)) {
            throw new FaultyValue("between", 1, MOST);
        }
    }

    /** How many of the links of somebody that live are too many. */
    public int tooMany(int live) {
        return mostLiveLinks == null ? 0 : Math.max(0, live - mostLiveLinks);
    }
}
