package oakbasket.server.storage;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;
import java.nio.file.attribute.FileTime;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;

/**
 * What the disk says of a file that differs once somebody put another one in its place or wrote into it: which file it is (inode), whose, how long, when its content and when anything of it changed last. The last, which
 * nobody can set, tells also of a file that was changed and given its old time again. A mark that is the same means the same bytes; one that differs means that they have to be read again.
 */
record FileMark(String written) {

    private static final int LONGEST = 160;

    /** The mark of a file as it is now. @throws IOException when there is none */
    static FileMark of(Path file) throws IOException {
        if (file.getFileSystem().supportedFileAttributeViews().contains("unix")) {
            Map<String, Object> found = Files.readAttributes(file, "unix:dev,ino,uid,size,lastModifiedTime,ctime");
            return new FileMark(found.get("dev") + ":" + found.get("ino") + ":" + found.get("uid") + ":" + found.get("size") + ":" + nanos(found.get("lastModifiedTime")) + ":" + nanos(found.get("ctime")));
        }
        BasicFileAttributes found = Files.readAttributes(file, BasicFileAttributes.class);
        String key = String.valueOf(found.fileKey());
        return new FileMark(key.substring(0, Math.min(key.length(), LONGEST / 2)) + ":" + found.size() + ":" + nanos(found.lastModifiedTime()));
    }

    private static long nanos(@Nullable Object time) {
        return ((FileTime) Objects.requireNonNull(time)).to(TimeUnit.NANOSECONDS);
    }
}
