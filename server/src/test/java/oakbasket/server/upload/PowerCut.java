package oakbasket.server.upload;

import java.nio.file.Path;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * What a disk holds after the power was cut behind some calls, as POSIX promises it (IEEE 1003.1, fsync): the bytes of a file up to its last flush and the
 * names of a folder up to its last flush are there; of everything later either all may be there or nothing.
 */
final class PowerCut {

    private static final class Inode {
        private byte[] bytes = new byte[0];
        private byte[] forced = new byte[0];
    }

    private final Map<Path, Inode> names = new HashMap<>();
    private final Map<Path, Inode> forcedNames = new HashMap<>();
    private final Set<Path> folders = new HashSet<>();
    private final Set<Path> forcedFolders = new HashSet<>();

    /** Goes through the calls in order. */
    PowerCut(List<RecordedDisk.Call> calls) {
        calls.forEach(this::apply);
    }

    /** The files of the luckiest outcome: all that was asked for happened. */
    Map<Path, byte[]> atBest() {
        Map<Path, byte[]> files = new LinkedHashMap<>();
        names.forEach((path, inode) -> files.put(path, inode.bytes));
        return files;
    }

    /** The files of the unluckiest outcome: only what was flushed is there. */
    Map<Path, byte[]> atWorst() {
        Map<Path, byte[]> files = new LinkedHashMap<>();
        forcedNames.forEach((path, inode) -> {
            if (!folders.contains(path.getParent()) || forcedFolders.contains(path.getParent())) {
                files.put(path, inode.forced);
            }
        });
        return files;
    }

    private void apply(RecordedDisk.Call call) {
        switch (call.kind()) {
            case CREATE, RESERVE -> names.put(call.path(), new Inode());
            case WRITE -> write(names.computeIfAbsent(call.path(), path -> existing(path)), (int) call.at(), call.bytes());
            case TRUNCATE -> {
                Inode inode = names.computeIfAbsent(call.path(), path -> existing(path));
                inode.bytes = Arrays.copyOf(inode.bytes, (int) call.at());
            }
            case FORCE -> {
                Inode inode = names.computeIfAbsent(call.path(), path -> existing(path));
                inode.forced = inode.bytes.clone();
            }
            case LINK -> names.put(call.path(), names.get(call.other()));
            case REPLACE -> names.put(call.path(), names.remove(call.other()));
            case DELETE -> names.remove(call.path());
            case MAKE_FOLDER -> folders.add(call.path());
            case FORCE_FOLDER -> {
                forcedNames.keySet().removeIf(path -> path.getParent().equals(call.path()));
                names.forEach((path, inode) -> {
                    if (path.getParent().equals(call.path())) {
                        forcedNames.put(path, inode);
                    }
                });
                folders.stream().filter(folder -> folder.getParent().equals(call.path())).forEach(forcedFolders::add);
            }
            case RECORDED, CHECKPOINT, ANSWERED -> {
                return;
            }
        }
    }

    /** A file that was there before the first call, such as the journal: its name is certain. */
    private Inode existing(Path path) {
        Inode inode = new Inode();
        forcedNames.put(path, inode);
        return inode;
    }

    private static void write(Inode inode, int at, byte[] bytes) {
        byte[] longer = Arrays.copyOf(inode.bytes, Math.max(inode.bytes.length, at + bytes.length));
        System.arraycopy(bytes, 0, longer, at, bytes.length);
        inode.bytes = longer;
    }
}
