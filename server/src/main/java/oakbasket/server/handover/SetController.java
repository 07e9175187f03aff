package oakbasket.server.handover;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.List;
import oakbasket.core.archive.ZipLayout;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpRange;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Hands the set of a closed round over, from any byte on (RFC 9110, range requests). */
@RestController
class SetController {

    private static final int BUFFER = 1 << 17;

    private final RoundSets sets;

    SetController(RoundSets sets) {
        this.sets = sets;
    }

    @GetMapping("/api/sets/{round}")
    RoundSets.Readiness readiness(@PathVariable long round) {
        return sets.readiness(round);
    }

    /** Has every file read and compared with its hash. */
    @PostMapping("/api/sets/{round}")
    @ResponseStatus(HttpStatus.ACCEPTED)
    RoundSets.Readiness prepare(@PathVariable long round) {
        sets.prepare(round);
        return sets.readiness(round);
    }

    @GetMapping("/api/sets/{round}/set.zip")
    void zip(@PathVariable long round,
            @RequestHeader(value = "Range", required = false) @Nullable String range,
            @RequestHeader(value = "If-Range", required = false) @Nullable String condition,
            HttpServletResponse response) throws IOException {
        send(sets.archive(round, RoundSets.Form.ZIP), range, condition, response);
    }

    /** The same as a BagIt bag (RFC 8493) with SHA-256 manifests. */
    @GetMapping("/api/sets/{round}/bag.zip")
    void bag(@PathVariable long round,
            @RequestHeader(value = "Range", required = false) @Nullable String range,
            @RequestHeader(value = "If-Range", required = false) @Nullable String condition,
            HttpServletResponse response) throws IOException {
        send(sets.archive(round, RoundSets.Form.BAG), range, condition, response);
    }

    private static void send(RoundSets.Archive archive, @Nullable String range, @Nullable String condition, HttpServletResponse response) throws IOException {
        long length = archive.layout().length();
        String tag = "\"" + archive.seal() + "\"";
        long from = 0;
        long to = length;
        response.setHeader(HttpHeaders.ACCEPT_RANGES, "bytes");
        response.setHeader(HttpHeaders.ETAG, tag);
        response.setHeader(HttpHeaders.CACHE_CONTROL, "private, no-cache");
        if (range != null && (condition == null || condition.equals(tag))) {
            List<HttpRange> asked = ranges(range);
            if (asked.size() == 1) {
                from = asked.get(0).getRangeStart(length);
                to = asked.get(0).getRangeEnd(length) + 1;
                if (from >= length) {
                    response.setHeader(HttpHeaders.CONTENT_RANGE, "bytes */" + length);
                    response.setStatus(HttpStatus.REQUESTED_RANGE_NOT_SATISFIABLE.value());
                    return;
                }
                response.setStatus(HttpStatus.PARTIAL_CONTENT.value());
                response.setHeader(HttpHeaders.CONTENT_RANGE, "bytes " + from + "-" + (to - 1) + "/" + length);
            }
        }
        response.setContentType("application/zip");
        response.setHeader(HttpHeaders.CONTENT_DISPOSITION, ContentDisposition.attachment().filename(archive.name(), StandardCharsets.UTF_8).build().toString());
        response.setContentLengthLong(to - from);
        archive.layout().write(from, to, new Pipe(archive.parts(), response.getOutputStream()));
    }

    /** What cannot be read as ranges asks for nothing, and the whole is sent. */
    private static List<HttpRange> ranges(String typed) {
        try {
            return HttpRange.parseRanges(typed);
        } catch (IllegalArgumentException wrong) {
            return List.of();
        }
    }

    /** Puts the parts of an archive on their way. A file that is shorter than it should be breaks the answer off, so that nobody takes it for whole. */
    private record Pipe(List<RoundSets.Part> parts, OutputStream out) implements ZipLayout.Sink<IOException> {

        @Override
        public void bytes(byte[] own, int from, int length) throws IOException {
            out.write(own, from, length);
        }

        @Override
        public void content(int entry, long from, long length) throws IOException {
            RoundSets.Part part = parts.get(entry);
            Path file = part.file();
            if (file == null) {
                out.write(part.own(), (int) from, (int) length);
                return;
            }
            ByteBuffer buffer = ByteBuffer.allocate(BUFFER);
            try (FileChannel channel = FileChannel.open(file, StandardOpenOption.READ)) {
                long at = from;
                while (at < from + length) {
                    buffer.clear().limit((int) Math.min(BUFFER, from + length - at));
                    int read = channel.read(buffer, at);
                    if (read < 0) {
                        throw new IOException("A file of the set is shorter than it was");
                    }
                    out.write(buffer.array(), 0, read);
                    at += read;
                }
            }
        }
    }
}
