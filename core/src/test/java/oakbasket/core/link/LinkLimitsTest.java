package oakbasket.core.link;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import oakbasket.core.fault.Fault;
import oakbasket.core.fault.FaultyValue;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class LinkLimitsTest {

    /** A link that takes three files, 10 bytes each, 25 together. */
    @ParameterizedTest(name = "{0} files of {1} bytes there, one of {2}: {3}")
    @CsvSource({"0, 0, 10, NOTHING", "0, 0, 11, FILE_SIZE", "2, 15, 10, NOTHING", "2, 16, 10, TOTAL_SIZE", "2, 25, 1, TOTAL_SIZE", "3, 3, 1, FILES", "3, 25, 11, FILE_SIZE", "9, 90, 1, FILES"})
    void theFirstLimitReachedIsTold(int files, long bytes, long next, LinkLimits.Reached reached) {
        assertThat(new LinkLimits(null, 3, 10L, 25L).by(new LinkUse(1, files, bytes), next)).isEqualTo(reached);
        assertThat(LinkLimits.NONE.by(new LinkUse(1, files, bytes), next)).isEqualTo(LinkLimits.Reached.NOTHING);
    }

    @ParameterizedTest(name = "{0} uses, {1} files, {2} and {3} bytes: {4} {5}")
    @CsvSource({
        "-, -, -, -, '', ''", "1, 1, 1, 1, '', ''", "1000000, 1000000, 1, 8796093022208, '', ''",
        "0, -, -, -, uses, link-number", "1000001, -, -, -, uses, link-number", "-, -1, -, -, files, link-number",
        "-, -, 0, -, fileMebibytes, link-number", "-, -, -, 8796093022209, totalMebibytes, link-number", "-, -, 2, 1, fileMebibytes, link-file-over-total"})
    void whatCannotBeALimit(String uses, String files, String one, String all, String field, String code) {
        LinkLimits limits = new LinkLimits(number(uses), number(files), big(one), big(all));
        assertThat(limits.fault().map(Fault::field).orElse("")).isEqualTo(field);
        assertThat(limits.fault().map(Fault::code).orElse("")).isEqualTo(code);
    }

    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource({
        "Winter planting, winter-planting", "' --Ł\u00f3d\u017a & Stra\u00dfe 7! ', lodz-strasse-7", "'', ''", "a/b\\\\c%2e%2e, a-b-c-2e-2e", "\u0645\u0648\u0633\u0645 2027, 2027"})
    void aReadableNameIsPlain(String typed, String name) {
        assertThat(ReadableName.of(typed)).isEqualTo(name);
    }

    @ParameterizedTest
    @CsvSource({"\u0645\u0648\u0633\u0645, link-name", "'///', link-name", "aaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaa, longest"})
    void whatCannotBeAReadableName(String typed, String code) {
        assertThatThrownBy(() -> ReadableName.of(typed)).isInstanceOfSatisfying(FaultyValue.class, fault -> assertThat(fault.reason().code()).isEqualTo(code));
    }

    @ParameterizedTest
    @CsvSource({
        "Landowner consent packs for the winter planting of the upper and the lower Fenn, landowner-consent-packs-for-the-winter-planting-of-the-upper",
        "ddddddddddddddddddddddddddddddddddddddddddddddddddddddddddddddddddddd, dddddddddddddddddddddddddddddddddddddddddddddddddddddddddddd"})
    void aLongTitleSuggestsWholeWords(String title, String name) {
        assertThat(ReadableName.suggestion(title)).isEqualTo(name).hasSizeLessThanOrEqualTo(ReadableName.LONGEST);
    }

    private static @Nullable Integer number(String text) {
        return text.equals("-") ? null : Integer.valueOf(text);
    }

    private static @Nullable Long big(String text) {
        return text.equals("-") ? null : Long.valueOf(text);
    }
}
