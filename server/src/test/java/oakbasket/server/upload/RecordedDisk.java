package oakbasket.server.upload;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.file.Files;
import java.nio.file.OpenOption;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import oakbasket.server.storage.Disk;

/** The disk of this machine, every call to it noted, each able to fail; and marks of what else happens in between. */
class RecordedDisk implements Disk {

    /** What was asked of the disk, or happened meanwhile. */
    enum Kind { CREATE, WRITE, FORCE, TRUNCATE, LINK, RESERVE, REPLACE, DELETE, MAKE_FOLDER, FORCE_FOLDER, RECORDED, CHECKPOINT, ANSWERED }

    /**
     * One of them.
     *
     * @param other the file that gets a second name or a new one
     * @param at where bytes were written, or the length a file was shortened to
     */
    record Call(Kind kind, Path path, Path other, long at, byte[] bytes) {
        @Override
        public String toString() {
            return kind + " " + path.getFileName() + (bytes.length > 0 ? " " + bytes.length + " bytes" : "");
        }
    }

    private static final Path NOWHERE = Path.of("");

    private final Disk real = Disk.ofThisMachine();
    private final List<Call> calls = new ArrayList<>();
    private int failAt = -1;
    private String failure = "";
    private volatile boolean swallowing;

    /** Everything since this was asked last. */
    synchronized List<Call> take() {
        List<Call> taken = List.copyOf(calls);
        calls.clear();
        return taken;
    }

    /** Has the n-th call from now, counted from 0, fail with these words; a negative number lets all succeed. */
    synchronized void failAt(int n, String words) {
        calls.clear();
        failAt = n;
        failure = words;
    }

    /** Has the disk say that bytes of uploads are written, and write none. */
    void swallow(boolean on) {
        swallowing = on;
    }

    synchronized void mark(Kind kind) {
        calls.add(new Call(kind, NOWHERE, NOWHERE, 0, new byte[0]));
    }

    private synchronized void note(Kind kind, Path path, Path other, long at, byte[] bytes) throws IOException {
        if (failAt >= 0 && calls.size() == failAt) {
            failAt = -1;
            calls.add(new Call(kind, path, other, at, bytes));
            throw new IOException(failure);
        }
        calls.add(new Call(kind, path, other, at, bytes));
    }

    private void note(Kind kind, Path path, Path other) throws IOException {
        note(kind, path, other, 0, new byte[0]);
    }

    @Override
    public DiskFile open(Path path, OpenOption... options) throws IOException {
        if (!Files.exists(path)) {
            note(Kind.CREATE, path, NOWHERE);
        }
        DiskFile file = real.open(path, options);
        boolean appends = Arrays.asList(options).contains(StandardOpenOption.APPEND);
        return new DiskFile() {
            private long position;

            @Override
            public int write(ByteBuffer bytes) throws IOException {
                if (swallowing && path.toString().endsWith(".part")) {
                    int length = bytes.remaining();
                    bytes.position(bytes.limit());
                    return length;
                }
                byte[] copy = new byte[bytes.remaining()];
                bytes.duplicate().get(copy);
                note(Kind.WRITE, path, NOWHERE, appends ? file.size() : position, copy);
                int written = file.write(bytes);
                position += written;
                return written;
            }

            @Override
            public void force() throws IOException {
                note(Kind.FORCE, path, NOWHERE);
                file.force();
            }

            @Override
            public long size() throws IOException {
                return file.size();
            }

            @Override
            public void position(long offset) throws IOException {
                position = offset;
                file.position(offset);
            }

            @Override
            public void truncate(long length) throws IOException {
                note(Kind.TRUNCATE, path, NOWHERE, length, new byte[0]);
                file.truncate(length);
            }

            @Override
            public void close() throws IOException {
                file.close();
            }
        };
    }

    @Override
    public void link(Path name, Path file) throws IOException {
        note(Kind.LINK, name, file);
        real.link(name, file);
    }

    @Override
    public void reserve(Path name) throws IOException {
        note(Kind.RESERVE, name, NOWHERE);
        real.reserve(name);
    }

    @Override
    public void replace(Path file, Path name) throws IOException {
        note(Kind.REPLACE, name, file);
        real.replace(file, name);
    }

    @Override
    public boolean delete(Path name) throws IOException {
        note(Kind.DELETE, name, NOWHERE);
        return real.delete(name);
    }

    @Override
    public void makeFolder(Path folder) throws IOException {
        note(Kind.MAKE_FOLDER, folder, NOWHERE);
        real.makeFolder(folder);
    }

    @Override
    public void forceFolder(Path folder) throws IOException {
        note(Kind.FORCE_FOLDER, folder, NOWHERE);
        real.forceFolder(folder);
    }
}
