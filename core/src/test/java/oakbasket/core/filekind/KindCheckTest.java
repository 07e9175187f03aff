package oakbasket.core.filekind;

import static oakbasket.core.filekind.KindCheck.byContent;
import static oakbasket.core.filekind.KindCheck.byName;
import static org.assertj.core.api.Assertions.assertThat;

import java.util.EnumSet;
import java.util.Set;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class KindCheckTest {

    @ParameterizedTest(name = "{1} holding {2} where {0} is wanted: {3}, then {4}")
    @CsvSource({
        "PDF,         consent.pdf,  application/pdf,            ACCEPTED,        ACCEPTED",
        "PDF,         CONSENT.PDF,  application/pdf,            ACCEPTED,        ACCEPTED",
        "PDF,         photo.jpg,    image/jpeg,                 KIND_NOT_WANTED, KIND_NOT_WANTED",
        "PDF,         consent.pdf,  application/x-msdownload,   ACCEPTED,        PROGRAM",
        "PDF,         consent.pdf,  image/png,                  ACCEPTED,        DISGUISED",
        "PDF,         consent,      application/pdf,            KIND_NOT_WANTED, KIND_NOT_WANTED",
        "ANY,         setup.exe,    application/x-msdownload,   PROGRAM,         PROGRAM",
        "ANY,         setup.pdf,    application/x-msdownload,   ACCEPTED,        PROGRAM",
        "ANY,         notes.xyz,    application/octet-stream,   ACCEPTED,        ACCEPTED",
        "ANY,         map.pdf,      application/zip,            ACCEPTED,        DISGUISED",
        "SPREADSHEET, sheet.csv,    text/plain,                 ACCEPTED,        ACCEPTED",
        "SPREADSHEET, sheet.xlsx,   application/zip,            ACCEPTED,        DISGUISED",
        "TRACK,       walk.gpx,     application/xml,            ACCEPTED,        ACCEPTED",
        "TRACK,       walk.gpx,     application/pdf,            ACCEPTED,        DISGUISED",
        "IMAGE,       a.jpg,        image/png,                  ACCEPTED,        ACCEPTED"})
    void nameFirstThenContent(String wanted, String name, String mediaType, KindCheck.Verdict first, KindCheck.Verdict then) {
        Set<FileKind> kinds = wanted.equals("ANY") ? EnumSet.noneOf(FileKind.class) : EnumSet.of(FileKind.valueOf(wanted));
        assertThat(byName(kinds, name)).isEqualTo(first);
        assertThat(byContent(kinds, name, mediaType)).isEqualTo(then);
    }
}
