package oakbasket.server.web;

import jakarta.servlet.ServletRequest;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.util.function.BooleanSupplier;
import java.util.function.IntSupplier;
import org.jspecify.annotations.Nullable;

/**
 * A connection by which the bytes of a file leave the machine without coming through the program.
 *
 * @param standIns gives a buffer to be written in the place of a part; the line sends the part when the buffer comes to it
 * @param wentStraight whether all bytes of the last part left so. Where something between changes or reads what is written, they did not.
 * @param left how many bytes of the last part left, also where it broke off
 */
public record FileLine(StandIns standIns, BooleanSupplier wentStraight, IntSupplier left) {

    /** Under this name a request carries the line of its connection, where it has one. */
    public static final String ATTRIBUTE = FileLine.class.getName();

    /** The longest part that one buffer stands for, in bytes. */
    public static final int LONGEST = 8 * 1024 * 1024;

    /** Makes buffers that stand for parts of files. */
    @FunctionalInterface
    public interface StandIns {

        /** Gives one as long as the part. @param length in bytes, at most {@link #LONGEST} */
        ByteBuffer of(FileChannel file, long from, int length);
    }

    /** The line of the connection that a request came by; null where everything has to be read and written, as behind encryption. */
    static @Nullable FileLine of(ServletRequest request) {
        return (FileLine) request.getAttribute(ATTRIBUTE);
    }
}
