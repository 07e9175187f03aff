package oakbasket.core.naming;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.time.Instant;
import java.time.ZoneId;

/**
 * What is known of one received file when it gets its name. Texts are raw and may be empty; {@link NamingPattern} makes them safe.
 *
 * @param group the person's first group
 * @param groupless what stands for the group of somebody who is in none, where a pattern does not let it go
 * @param sender who the sender said they were, as typed; empty where nobody had to say
 * @param kind the kind of file in words
 * @param original the name the file had at the sender's
 * @param number the how-manieth file of its item in its basket, from 1
 */
@RecordBuilder
@RecordBuilder.Options(builderMode = RecordBuilder.BuilderMode.STANDARD_AND_STAGED)
public record NameFacts(String round, String group, String groupless, String person, String organisation, String email, String reference, String sender,
        String item, String kind, String original, Instant received, Instant deadline, ZoneId zone, String receipt, int number) {
}
