package oakbasket.server.rules;

import java.util.List;
import oakbasket.core.filing.FilingRule;

/**
 * A list of rules.
 *
 * @param roundId whose they are; {@link RuleSets#OFFICE} stands for the office
 * @param version counts changes; 0 where there never were any
 */
public record RuleSet(long roundId, int version, List<FilingRule> rules) {
}
