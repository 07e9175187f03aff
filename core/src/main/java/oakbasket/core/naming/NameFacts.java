package oakbasket.core.naming;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.time.Instant;
import java.time.ZoneId;

/**
 * What is known of one received file when it gets its name. Texts are raw and may be empty; {@link NamingPattern} makes them safe.
 *
 * @param original the name the file had at the sender's
 * @param number the how-manieth file of its item in its basket, from 1
 */
@RecordBuilder
@RecordBuilder.Options(builderMode = RecordBuilder.BuilderMode.STANDARD_AND_STAGED)
public record NameFacts(String round, String group, String person, String organisation, String email, String reference,
        String item, String original, Instant received, Instant deadline, ZoneId zone, String receipt, int number) {
}
