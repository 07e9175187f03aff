package oakbasket.server.decode.work;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayOutputStream;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Random;
import oakbasket.core.contact.ContactColumn;
import oakbasket.core.contact.ContactFields;
import oakbasket.core.contact.ImportPlan;
import oakbasket.server.problem.Problem;
import oakbasket.server.web.TableOut;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Tables and address books as they come from all kinds of programs. */
class ImportedRowsTest {

    @ParameterizedTest(name = "{0}: {1}, parted by [{2}]")
    @CsvSource(delimiter = '!', value = {
        "UTF-8        ! UTF-8        ! ,",
        "UTF-8+BOM    ! UTF-8        ! ;",
        "UTF-16LE+BOM ! UTF-16LE     ! ,",
        "UTF-16BE+BOM ! UTF-16BE     ! ;",
        "UTF-16LE     ! UTF-16LE     ! |",
        "UTF-16BE     ! UTF-16BE     ! ,",
        "windows-1252 ! Windows-1252 ! ;",
        "ISO-8859-1   ! Windows-1252 ! |"})
    void characterSetAndDelimiterAreDetected(String written, String detected, char delimiter) {
        String text = String.join("\r\n", "Name,E-mail,Farm", "Zoë Ångström,zoe@example.org,\"Otter, Holt\"", "Béla,bela@example.org,Ö", "").replace(',', delimiter);
        ImportedRows read = ImportedRows.read(bytes(text, written), "", "");
        assertThat(read.charset()).isEqualTo(detected);
        assertThat(read.delimiter()).isEqualTo(delimiter);
        assertThat(read.headed()).isTrue();
        assertThat(read.lines().get(1).cells()).containsExactly("Zoë Ångström", "zoe@example.org", "Otter, Holt".replace(',', delimiter));
        assertThat(read.columns()).containsExactly(ContactColumn.NAME, ContactColumn.EMAIL, ContactColumn.ORGANISATION);
    }

    private static byte[] bytes(String text, String written) {
        boolean marked = written.endsWith("+BOM");
        return ((marked ? "\uFEFF" : "") + text).getBytes(Charset.forName(written.replace("+BOM", "")));
    }

    /** Sources: RFC 4180 §2 for quotes, commas and line breaks in cells; the rest is what real files are like. Lines are numbered as an editor would. */
    @ParameterizedTest(name = "[{0}] → {1} in line {2}")
    @CsvSource(delimiter = '!', quoteCharacter = '`', value = {
        "a,b~\"x, y\",z                   ! x, y|z         ! 2",
        "a,b~\"say \"\"hi\"\"\",z         ! say \"hi\"|z   ! 2",
        "a,b~\"two~lines\",z~last,row     ! last|row       ! 4",
        "a,b~~~after,gaps                 ! after|gaps     ! 4",
        "a,b~,~x,y                        ! x|y            ! 3",
        "a,b~only one                     ! only one       ! 2",
        "a,b~1,2,3,4                      ! 1|2|3|4        ! 2",
        "a;b~1,5;2,5                      ! 1,5|2,5        ! 2",
        "a\tb~x, y\tz                     ! x, y|z         ! 2",
        "a,b~no end,\"of quotes           ! no end|of quotes ! 2",
        "a,b~half \"quoted\" cell,z       ! half \"quoted\" cell|z ! 2"})
    void cellsAndLineNumbersAreThoseOfTheFile(String file, String lastRow, int number) {
        ImportedRows read = ImportedRows.read(file.replace('~', '\n').getBytes(StandardCharsets.UTF_8), "", "");
        ImportedRows.Line last = read.lines().get(read.lines().size() - 1);
        assertThat(String.join("|", last.cells())).isEqualTo(lastRow);
        assertThat(last.number()).isEqualTo(number);
    }

    @Test
    void aGivenCharacterSetAndDelimiterGoBeforeTheDetected() {
        byte[] content = "a;b,c\n1;2,3\n".getBytes(StandardCharsets.UTF_8);
        assertThat(ImportedRows.read(content, "", ";").lines().get(1).cells()).containsExactly("1", "2,3");
        assertThat(ImportedRows.read(content, "UTF-8", ",").lines().get(1).cells()).containsExactly("1;2", "3");
        assertThatThrownBy(() -> ImportedRows.read(content, "KLINGON", "")).isInstanceOf(Problem.class);
    }

    /** A thousand files of random bytes: each is read as some table or refused plainly, and none breaks anything. */
    @Test
    void randomBytesAreReadOrRefused() {
        Random random = new Random(3);
        int refused = 0;
        for (int i = 0; i < 1_000; i++) {
            byte[] content = new byte[random.nextInt(400)];
            random.nextBytes(content);
            try {
                assertThat(ImportedRows.read(content, "", "").lines()).isNotEmpty();
            } catch (Problem plain) {
                assertThat(plain.code()).startsWith("import-");
                refused++;
            }
        }
        assertThat(refused).isGreaterThan(500);
    }

    @Test
    void tooManyRowsOrColumnsAreRefused() {
        assertThatThrownBy(() -> ImportedRows.read("a,b\n".repeat(100_002).getBytes(StandardCharsets.UTF_8), "", "")).hasMessage("import-too-long");
        assertThatThrownBy(() -> ImportedRows.read(("a,".repeat(300) + "\n").getBytes(StandardCharsets.UTF_8), "", "")).hasMessage("import-not-a-table");
    }

    /** What is written as a table is read back as it was, whatever stands in the cells. */
    @Test
    void everyTableThatGoesOutComesInAgain() {
        Random random = new Random(9);
        String[] pieces = {"a", "Ö", ",", ";", "\"", "'", "=", "+", "-", "@", "\n", "\r\n", " ", "x y", "日", "|"};
        for (int i = 0; i < 500; i++) {
            StringBuilder cell = new StringBuilder("n");
            for (int n = random.nextInt(6); n > 0; n--) {
                cell.insert(random.nextInt(cell.length() + 1), pieces[random.nextInt(pieces.length)]);
            }
            String notes = cell.toString().strip();
            byte[] csv = TableOut.csv(List.of("E-mail", "Notes"), List.of(List.of("ada@example.org", notes)));
            ImportedRows read = ImportedRows.read(csv, "", ",");
            ContactFields fields = ContactColumn.read(read.columns(), read.lines().get(1).cells());
            assertThat(visible(fields.notes())).isEqualTo(visible(notes));
        }
    }

    private static String visible(String text) {
        return text.replace("\r", "<CR>").replace("\n", "<LF>");
    }

    /** Sources: RFC 6350 (4.0), RFC 2426 (3.0) and the older 2.1 with its quoted-printable, as address books still write it. */
    @ParameterizedTest(name = "{1} <{2}>")
    @CsvSource(delimiter = '!', value = {
        "VERSION:4.0~FN:Ada Brook~EMAIL:ada@example.org                                        ! Ada Brook ! ada@example.org",
        "VERSION:3.0~N:Brook;Ada;;;~EMAIL;TYPE=INTERNET:ada@example.org                        ! Ada Brook ! ada@example.org",
        "VERSION:2.1~N;CHARSET=UTF-8;ENCODING=QUOTED-PRINTABLE:R=C3=A9ed;Zo=C3=AB~EMAIL:z@example.org ! Zoë Réed ! z@example.org",
        "VERSION:4.0~FN:Ada~EMAIL:second@example.org~EMAIL;PREF=1:first@example.org            ! Ada       ! first@example.org",
        "VERSION:3.0~FN:Folded~ Name~EMAIL:f@example.org                                       ! FoldedName ! f@example.org",
        "VERSION:4.0~FN:No Address                                                             ! No Address ! ''"})
    void addressBooksOfEveryAgeAreRead(String card, String name, String email) {
        ImportPlan.Row row = CardsFile.read(("BEGIN:VCARD\n" + card.strip().replace('~', '\n') + "\nEND:VCARD\n").getBytes(StandardCharsets.UTF_8)).rows().get(0);
        assertThat(row.fields().name()).isEqualTo(name);
        assertThat(row.fields().email()).isEqualTo(email);
    }

    @Test
    void aCardCarriesOrganisationGroupsZoneLanguageAndNotes() {
        String card = "BEGIN:VCARD\nVERSION:4.0\nFN:Ada\nEMAIL:a@example.org\nORG:Fenn;Bank\nCATEGORIES:East,West\nTZ;VALUE=text:Europe/London\nLANG:cy\nNOTE:one\\nand two\\, three\n"
                + "X-REFERENCE:L-7\nPHOTO:data:image/png;base64,AAAA\nEND:VCARD\n";
        assertThat(CardsFile.read(card.getBytes(StandardCharsets.UTF_8)).rows().get(0).fields())
                .isEqualTo(new ContactFields("Ada", "a@example.org", "Fenn, Bank", "L-7", "cy", "Europe/London", "one\nand two, three", List.of("East", "West")));
    }

    @ParameterizedTest
    @ValueSource(ints = {0, 5, 50})
    void severalCardsAreNumberedFromOne(int cards) throws Exception {
        ByteArrayOutputStream file = new ByteArrayOutputStream();
        for (int i = 0; i < cards; i++) {
            file.write(("BEGIN:VCARD\r\nVERSION:3.0\r\nFN:P" + i + "\r\nEMAIL:p" + i + "@example.org\r\nEND:VCARD\r\n").getBytes(StandardCharsets.UTF_8));
        }
        if (cards == 0) {
            assertThatThrownBy(() -> CardsFile.read(file.toByteArray())).hasMessage("import-empty");
            return;
        }
        List<ImportPlan.Row> rows = CardsFile.read(file.toByteArray()).rows();
        assertThat(rows).hasSize(cards);
        assertThat(rows.get(cards - 1).number()).isEqualTo(cards);
    }
}
