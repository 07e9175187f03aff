package oakbasket.server.storage;

import java.io.Closeable;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.OpenOption;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;

/**
 * What receiving a file asks of the disk, and nothing more: the few calls whose order decides what a power cut leaves behind. Written bytes are certain only
 * after {@link DiskFile#force}, a name only after {@link #forceFolder} (IEEE 1003.1, fsync). Tests stand in for it to see the order, and to fail.
 */
public interface Disk {

    /** An open file. */
    interface DiskFile extends Closeable {
        /** Writes some of the bytes at the position, or at the end of a file opened to be appended to. */
        int write(ByteBuffer bytes) throws IOException;

        /** Returns after all that was written would survive a power cut. */
        void force() throws IOException;

        /** The length in bytes. */
        long size() throws IOException;

        /** Sets where the next byte goes. */
        void position(long offset) throws IOException;

        /** Shortens it. */
        void truncate(long length) throws IOException;
    }

    /** Opens a file to be written. */
    DiskFile open(Path path, OpenOption... options) throws IOException;

    /** Gives a file a second name. @throws java.nio.file.FileAlreadyExistsException when the name is taken */
    void link(Path name, Path file) throws IOException;

    /** Makes an empty file. @throws java.nio.file.FileAlreadyExistsException when the name is taken */
    void reserve(Path name) throws IOException;

    /** Renames in one step, over whatever has the name. */
    void replace(Path file, Path name) throws IOException;

    /** Takes a name away; whether there was one. */
    boolean delete(Path name) throws IOException;

    /** Makes one folder. @throws java.nio.file.FileAlreadyExistsException when the name is taken */
    void makeFolder(Path folder) throws IOException;

    /** Returns after the names in a folder would survive a power cut. */
    void forceFolder(Path folder) throws IOException;

    /** The disk of this machine. */
    static Disk ofThisMachine() {
        return new Disk() {
            @Override
            public DiskFile open(Path path, OpenOption... options) throws IOException {
                return new ChannelFile(FileChannel.open(path, options));
            }

            @Override
            public void link(Path name, Path file) throws IOException {
                Files.createLink(name, file);
            }

            @Override
            public void reserve(Path name) throws IOException {
                Files.createFile(name);
            }

            @Override
            public void replace(Path file, Path name) throws IOException {
                Files.move(file, name, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
            }

            @Override
            public boolean delete(Path name) throws IOException {
                return Files.deleteIfExists(name);
            }

            @Override
            public void makeFolder(Path folder) throws IOException {
                Files.createDirectory(folder);
            }

            @Override
            public void forceFolder(Path folder) throws IOException {
                try (FileChannel channel = FileChannel.open(folder, StandardOpenOption.READ)) {
                    channel.force(true);
                }
            }
        };
    }

    /** A file by its channel. */
    record ChannelFile(FileChannel channel) implements DiskFile {
        @Override
        public int write(ByteBuffer bytes) throws IOException {
            return channel.write(bytes);
        }

        @Override
        public void force() throws IOException {
            channel.force(false);
        }

        @Override
        public long size() throws IOException {
            return channel.size();
        }

        @Override
        public void position(long offset) throws IOException {
            channel.position(offset);
        }

        @Override
        public void truncate(long length) throws IOException {
            channel.truncate(length);
        }

        @Override
        public void close() throws IOException {
            channel.close();
        }
    }
}
