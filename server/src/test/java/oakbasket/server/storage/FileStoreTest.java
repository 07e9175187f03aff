package oakbasket.server.storage;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Attack names: what must never be reached from the folder of received files. Source of the shapes: OWASP, Path Traversal. */
class FileStoreTest {

    @TempDir
    private Path root;
    private FileStore store;

    @BeforeEach
    void aFolder() {
        DataFolder folder = mock(DataFolder.class);
        when(folder.files()).thenReturn(root.resolve("files"));
        when(folder.incoming()).thenReturn(root.resolve("incoming"));
        store = new FileStore(folder, new Roots(new RootTable(null), folder, Clock.systemUTC()), Disk.ofThisMachine());
    }

    @ParameterizedTest
    @ValueSource(strings = {"../keys/sealing.key", "a/../../keys/sealing.key", "/etc/passwd", "..", ".", "", "a/..", "a/../..", "../files-and-more/x", "../filesx/a"})
    void aPathThatLeavesTheFolderIsNone(String path) {
        assertThatThrownBy(() -> store.resolve(path)).isInstanceOf(IllegalArgumentException.class).hasMessageContaining("outside");
    }

    @ParameterizedTest
    @ValueSource(strings = {"../x", "a/b", "x.part/../../y", "", "a b", "ä"})
    void anUploadIsNamedByItsOwnLettersOnly(String id) {
        assertThatThrownBy(() -> store.incoming(id)).isInstanceOf(IllegalArgumentException.class);
    }

    @Test
    void aPlaceThatIsTakenIsNeverOverwritten() throws Exception {
        Path whole = Files.createDirectories(root.resolve("incoming")).resolve("one.part");
        Files.writeString(whole, "mine");
        Files.createDirectories(root.resolve("files/a"));
        Files.writeString(root.resolve("files/a/b.pdf"), "somebody else's");
        assertThat(store.place(whole, "a/b.pdf")).isFalse();
        assertThat(root.resolve("files/a/b.pdf")).hasContent("somebody else's");
        store.unplace(whole, "a/b.pdf");
        assertThat(root.resolve("files/a/b.pdf")).as("taking back what was not placed takes nobody's file").hasContent("somebody else's");
        assertThat(store.place(whole, "a/c.pdf")).isTrue();
        store.removeName("a/c.pdf", "a/b.pdf");
        assertThat(root.resolve("files/a/c.pdf")).as("two files, not two names of one").hasContent("mine");
    }
}
