package oakbasket.server.web;

import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import org.springframework.http.HttpStatus;

/** Reads the raw body of a request, up to a limit. */
public final class BoundedBody {

    private BoundedBody() {
    }

    /**
     * The whole body.
     *
     * @throws Problem with status 413 when it is longer than {@code most} bytes; by its announced length before any of it is read
     */
    public static byte[] read(HttpServletRequest request, int most) throws IOException {
        if (request.getContentLengthLong() > most) {
            throw tooLarge(most);
        }
        byte[] body = request.getInputStream().readNBytes(most + 1);
        if (body.length > most) {
            throw tooLarge(most);
        }
        return body;
    }

    private static Problem tooLarge(int most) {
        return Problem.of(HttpStatus.CONTENT_TOO_LARGE, "file-too-large", most / (1024 * 1024));
    }
}
