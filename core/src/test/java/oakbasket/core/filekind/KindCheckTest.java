package oakbasket.core.filekind;

import static oakbasket.core.filekind.KindCheck.byContent;
import static oakbasket.core.filekind.KindCheck.byName;
import static org.assertj.core.api.Assertions.assertThat;

import java.util.EnumSet;
import java.util.Set;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

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
        "DOCUMENT,    letter.docx,  text/plain,                 ACCEPTED,        DISGUISED",
        "SPREADSHEET, sheet.xls,    text/csv,                   ACCEPTED,        DISGUISED",
        "DOCUMENT,    notes.md,     text/x-web-markdown,        ACCEPTED,        ACCEPTED",
        "ANY,         page.html,    text/html,                  ACTIVE,          ACTIVE",
        "ANY,         page.xyz,     text/html,                  ACCEPTED,        ACTIVE",
        "ANY,         drawing.xml,  image/svg+xml,              ACCEPTED,        ACTIVE",
        "DOCUMENT,    letter.docm,  application/vnd.ms-office.macroenabled, ACTIVE, ACTIVE",
        "ANY,         letter.data,  application/vnd.ms-office.macroenabled, ACCEPTED, ACTIVE",
        "IMAGE,       a.jpg,        image/png,                  ACCEPTED,        ACCEPTED"})
    void nameFirstThenContent(String wanted, String name, String mediaType, KindCheck.Verdict first, KindCheck.Verdict then) {
        Set<FileKind> kinds = wanted.equals("ANY") ? EnumSet.noneOf(FileKind.class) : EnumSet.of(FileKind.valueOf(wanted));
        assertThat(byName(kinds, name, false)).isEqualTo(first);
        assertThat(byContent(kinds, name, mediaType, false)).isEqualTo(then);
    }

    /**
     * Sources: Microsoft, "Blocked attachments in Outlook"; OWASP File Upload Cheat Sheet (both from memory). What is judged is the name as it would be written:
     * a dot or space at the end goes away on the way, as do characters that are not seen.
     */
    @ParameterizedTest
    @ValueSource(strings = {"evil.vbs.", "evil.exe ", "evil.exe. . ", "evil.hta\u202e", "evil.bat\0", "evil.e\u200bxe", "evil.js\u00ad", "evil.\uff45\uff58\uff45", "EVIL.Scr", "evil.pdf.lnk",
        "evil.msc", "evil.wsc", "evil.sct", "evil.xll", "evil.py", "evil.desktop", "evil.command", "evil.chm", "evil.ps1\u2066", "evil.cmd\u3000", "a/b/evil.com", "evil.jar\n"})
    void aProgramIsOneHoweverItsNameIsWritten(String name) {
        assertThat(byName(EnumSet.noneOf(FileKind.class), name, false)).isEqualTo(KindCheck.Verdict.PROGRAM);
        assertThat(byName(EnumSet.noneOf(FileKind.class), name, true)).as("also where what opens with script is allowed").isEqualTo(KindCheck.Verdict.PROGRAM);
    }

    @ParameterizedTest
    @ValueSource(strings = {"page.html", "page.HTM.", "drawing.svg", "saved.mht", "letter.docm", "sheet.xlsm", "disk.iso", "disk.img\u202e", "slides.pptm", "sheet.xlsb", "form.xsl"})
    void whatOpensWithScriptIsTakenOnlyWhereTheRoundSaysSo(String name) {
        assertThat(byName(EnumSet.noneOf(FileKind.class), name, false)).isEqualTo(KindCheck.Verdict.ACTIVE);
        assertThat(byName(EnumSet.noneOf(FileKind.class), name, true)).isEqualTo(KindCheck.Verdict.ACCEPTED);
        assertThat(byContent(EnumSet.noneOf(FileKind.class), "page.html", "text/html", true)).isEqualTo(KindCheck.Verdict.ACCEPTED);
    }

    @ParameterizedTest
    @ValueSource(strings = {"consent.pdf", "executive summary.docx", "com", "a.exe.pdf", "js.txt", "photo.jpeg", "walk.gpx", "notes"})
    void anHonestNameIsNoProgram(String name) {
        assertThat(byName(EnumSet.noneOf(FileKind.class), name, false)).isEqualTo(KindCheck.Verdict.ACCEPTED);
    }

    @ParameterizedTest(name = "{0}: [{1}]")
    @CsvSource({"consent.PDF, pdf", "notes, ''", ".pdf, pdf", "a.b.Gpx, gpx", "x., ''"})
    void theEndingIsWhatFollowsTheLastDot(String name, String ending) {
        assertThat(FileKind.endingOf(name)).isEqualTo(ending);
        assertThat(FileKind.PDF.endings()).containsExactly("pdf");
    }
}
