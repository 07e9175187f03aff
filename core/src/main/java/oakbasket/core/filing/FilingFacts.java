package oakbasket.core.filing;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;
import oakbasket.core.filekind.FileKind;
import oakbasket.core.identity.Identity;
import oakbasket.core.naming.NameFacts;
import org.jspecify.annotations.Nullable;

/**
 * What is known of a received file when it is decided where it goes. Where it lies is not among it, so rules cannot send a file round in a circle.
 *
 * @param names what names are made of; its original name is the one that conditions read
 * @param groups every group of the person
 * @param kind null when it is of none
 * @param sizeBytes its length
 * @param late whether it came after the deadline of its basket
 */
@RecordBuilder
@RecordBuilder.Options(builderMode = RecordBuilder.BuilderMode.STANDARD_AND_STAGED)
public record FilingFacts(NameFacts names, List<String> groups, @Nullable FileKind kind, long sizeBytes, boolean late, Identity identity, Source source) {
}
