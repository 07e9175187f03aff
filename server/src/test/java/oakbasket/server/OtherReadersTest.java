package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.RandomAccessFile;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.jdbc.core.simple.JdbcClient;

/**
 * What is taken away is read by programs of other families: unzip, 7z, and Python's readers of workbooks and address books, all from Debian's packages
 * (installed by test.sh). Sources: PKWARE APPNOTE (ZIP64), ECMA-376, RFC 6350.
 */
class OtherReadersTest {

    private static final long MORE_THAN_32_BITS = (4L << 30) + 12_345;

    @TempDir
    private Path folder;

    private final TestRound round = new TestRound().item("Anything", false, 1, 9, 1).open();

    private void send(String name, String content) {
        assertThat(round.personal("Ada Brook").begin().send(2, name, content.getBytes(StandardCharsets.UTF_8)).status()).isEqualTo(201);
    }

    private Path taken(String path, String name) throws IOException {
        return Files.write(folder.resolve(name), round.desk.get(path).response().body());
    }

    private static String run(String... command) throws IOException, InterruptedException {
        Process process = new ProcessBuilder(command).redirectErrorStream(true).start();
        String printed = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertThat(process.waitFor(120, TimeUnit.SECONDS)).isTrue();
        assertThat(process.exitValue()).as("%s: %s", String.join(" ", command), printed).isZero();
        return printed;
    }

    @Test
    void unzipAndSevenZipFindEveryFileWholeAndRightlyNamed() throws Exception {
        send("Überflutung 川.txt", "one");
        send("two.txt", "two");
        Path zip = taken("/api/files.zip?round=" + round.id, "set.zip");
        assertThat(run("unzip", "-t", zip.toString())).contains("No errors detected");
        assertThat(run("7z", "t", zip.toString())).contains("Everything is Ok", "Files: 2");
        run("unzip", "-q", zip.toString(), "-d", folder.resolve("out").toString());
        try (var files = Files.walk(folder.resolve("out"))) {
            assertThat(files.filter(Files::isRegularFile).map(path -> path.getFileName().toString())).hasSize(2).allMatch(name -> name.startsWith("Ada Brook - Anything"));
        }
    }

    /** More than 4 GiB in one file, which an old ZIP cannot say. The file is laid on the disk with a hole in it, so that it need not be sent. */
    @Test
    void aFileOfMoreThanFourGibibytesGoesIntoAZip64() throws Exception {
        send("large.txt", "small so far");
        var file = round.panel("Ada Brook").path("files").get(0);
        Path stored = RunningApp.DATA.resolve("files").resolve(file.path("path").asString());
        try (RandomAccessFile large = new RandomAccessFile(stored.toFile(), "rw")) {
            large.setLength(MORE_THAN_32_BITS);
        }
        // Only what was received leaves: the record says what lies there now.
        RunningApp.bean(JdbcClient.class).sql("UPDATE received_file SET size_bytes = :size, sha256 = :sha256 WHERE id = :id").param("size", MORE_THAN_32_BITS)
                .param("sha256", oakbasket.server.storage.FileStore.digest(stored)).param("id", file.path("id").asLong()).update();
        Path zip = folder.resolve("large.zip");
        round.desk.client().send(java.net.http.HttpRequest.newBuilder(java.net.URI.create(RunningApp.URL + "/api/files.zip?round=" + round.id)).build(),
                java.net.http.HttpResponse.BodyHandlers.ofFile(zip));
        assertThat(run("7z", "l", zip.toString())).contains(Long.toString(MORE_THAN_32_BITS));
        assertThat(run("unzip", "-t", zip.toString())).contains("No errors detected");
        Files.delete(stored);
    }

    @Test
    void openpyxlReadsTheWorkbook() throws Exception {
        send("a.txt", "a");
        Path book = taken("/api/rounds/" + round.id + "/table.xlsx", "table.xlsx");
        String read = run("/usr/bin/python3", "-W", "ignore", "-c", "import openpyxl, sys\nsheet = openpyxl.load_workbook(sys.argv[1]).active\nfor row in sheet.iter_rows(values_only=True): print('|'.join(str(c or '') for c in row))\n"
                + "assert all(c.data_type in ('s', 'n', 'inlineStr') for r in sheet.iter_rows() for c in r)", book.toString());
        assertThat(read.lines()).hasSize(3);
        assertThat(read).contains("Ada Brook|ada@example.org", "Ben Reed|ben@example.org");
    }

    @Test
    void vobjectReadsTheAddressBook() throws Exception {
        String email = "zoe.vcard." + round.id + "@example.org";
        round.desk.post("/api/contacts", Http.JSON.createObjectNode().put("name", "Zoë, O'Ängström; 川").put("email", email).put("organisation", "Mill, & Sons; Ltd").put("notes", "two\nlines").toString());
        Path book = taken("/api/contacts.vcf", "contacts.vcf");
        String read = run("/usr/bin/python3", "-c", "import vobject, sys\nfor card in vobject.readComponents(open(sys.argv[1], newline='').read()):\n"
                + "  if card.email.value == sys.argv[2]: print(card.fn.value, '|', card.org.value, '|', repr(card.note.value))", book.toString(), email);
        assertThat(read).contains("Zoë, O'Ängström; 川", "Mill, & Sons; Ltd", "two\\nlines");
    }
}
