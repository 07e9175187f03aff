package oakbasket.server.web;

import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.io.InputStream;
import oakbasket.server.problem.Problem;

/** Reads the raw body of a request, up to a limit. */
public final class BoundedBody {

    /** Up to this length a body that is refused is read to its end all the same: whoever is still sending would not see the answer. */
    private static final long MOST_DRAINED = 64L * 1024 * 1024;

    private BoundedBody() {
    }

    /**
     * The whole body.
     *
     * @throws Problem with status 413 when it is longer than {@code most} bytes; by its announced length, and when that is beyond 64 MiB before any of it is read
     */
    public static byte[] read(HttpServletRequest request, int most) throws IOException {
        if (request.getContentLengthLong() > MOST_DRAINED) {
            throw tooLarge(most);
        }
        InputStream in = request.getInputStream();
        if (request.getContentLengthLong() > most) {
            in.skipNBytes(request.getContentLengthLong());
            throw tooLarge(most);
        }
        byte[] body = in.readNBytes(most + 1);
        if (body.length > most) {
            throw tooLarge(most);
        }
        return body;
    }

    private static Problem tooLarge(int most) {
        return Problem.of(Problem.Kind.TOO_LARGE, "file-too-large", most / (1024 * 1024));
    }
}
