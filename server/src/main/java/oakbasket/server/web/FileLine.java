package oakbasket.server.web;

import jakarta.servlet.ServletRequest;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import org.jspecify.annotations.Nullable;

/** A connection by which the bytes of a file leave the machine without coming through the program. */
public interface FileLine {

    /** Under this name a request carries the line of its connection, where it has one. */
    String ATTRIBUTE = FileLine.class.getName();

    /** The longest part that one buffer stands for, in bytes. */
    int LONGEST = 8 * 1024 * 1024;

    /**
     * Gives a buffer as long as a part of a file, to be written in its place; the line sends the part when the buffer comes to it. Where something between changes or reads what is
     * written, {@link #wentStraight()} says afterwards that the part did not leave.
     *
     * @param length in bytes, at most {@link #LONGEST}
     */
    ByteBuffer standIn(FileChannel file, long from, int length);

    /** Whether the bytes of the file, all of them, left for the last buffer. */
    boolean wentStraight();

    /** The line of the connection that a request came by; null where everything has to be read and written, as behind encryption. */
    static @Nullable FileLine of(ServletRequest request) {
        return (FileLine) request.getAttribute(ATTRIBUTE);
    }
}
