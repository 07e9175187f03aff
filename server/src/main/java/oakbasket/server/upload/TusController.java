package oakbasket.server.upload;

import io.swagger.v3.oas.annotations.Operation;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.Base64;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import oakbasket.core.round.ItemSpec;
import oakbasket.server.basket.Submission;
import oakbasket.server.basket.Submissions;
import oakbasket.server.link.Link;
import oakbasket.server.link.Links;
import oakbasket.server.problem.Problem;
import oakbasket.server.round.Item;
import oakbasket.server.round.Rounds;
import oakbasket.server.security.FromOutside;
import oakbasket.server.web.Caller;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PatchMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestMethod;
import org.springframework.web.bind.annotation.RestController;

/**
 * The open tus protocol 1.0.0: core, creation, creation-with-upload, termination, expiration. The link, the submission and a passcode ticket stand
 * in headers of the creation; afterwards the unguessable URL of the upload is enough.
 */
@RestController
@FromOutside
class TusController {

    static final String VERSION = "1.0.0";
    private static final String OFFSET_TYPE = "application/offset+octet-stream";
    private static final int LONGEST_METADATA = 8_000;
    private static final List<String> ONCE = List.of("Tus-Resumable", "Upload-Length", "Upload-Offset", "Upload-Metadata", "Content-Type", "Oak-Link", "Oak-Ticket", "Oak-Submission");
    /** RFC 9110 §5.6.7: the day has two digits. */
    private static final DateTimeFormatter HTTP_DATE = DateTimeFormatter.ofPattern("EEE, dd MMM yyyy HH:mm:ss 'GMT'", Locale.US).withZone(ZoneOffset.UTC);

    private final Uploads uploads;
    private final Links links;
    private final Submissions submissions;
    private final Rounds rounds;
    private final Transfers transfers;

    TusController(Uploads uploads, Links links, Submissions submissions, Rounds rounds, Transfers transfers) {
        this.uploads = uploads;
        this.links = links;
        this.submissions = submissions;
        this.rounds = rounds;
        this.transfers = transfers;
    }

    /** Every request but OPTIONS must speak the version, and says each thing once. */
    @ModelAttribute
    void version(HttpServletRequest request, HttpServletResponse response) {
        response.setHeader("Cache-Control", "no-store");
        if (ONCE.stream().anyMatch(name -> Collections.list(request.getHeaders(name)).size() > 1)) {
            throw Problem.unreadable("header-twice");
        }
        if (!request.getMethod().equals("OPTIONS") && !VERSION.equals(request.getHeader("Tus-Resumable"))) {
            response.setHeader("Tus-Version", VERSION);
            throw Problem.of(Problem.Kind.OTHER_VERSION, "tus-version");
        }
    }

    @RequestMapping(path = {"/api/uploads", "/api/uploads/{id}"}, method = RequestMethod.OPTIONS)
    void options(HttpServletResponse response) {
        response.setHeader("Tus-Version", VERSION);
        response.setHeader("Tus-Extension", "creation,creation-with-upload,termination,expiration");
        response.setHeader("Tus-Max-Size", Long.toString(ItemSpec.MOST_BYTES));
        response.setStatus(HttpStatus.NO_CONTENT.value());
    }

    @Operation(summary = "Begins an upload (tus creation, creation-with-upload). Headers: Tus-Resumable, Upload-Length, Upload-Metadata with filename, item and, where a lost answer must not make two files of one, once")
    @PostMapping("/api/uploads")
    void create(HttpServletRequest request, HttpServletResponse response,
            @RequestHeader(value = "Oak-Link", required = false) @Nullable String token,
            @RequestHeader(value = "Oak-Ticket", required = false) @Nullable String ticket,
            @RequestHeader(value = "Oak-Submission", required = false) @Nullable String key) throws IOException {
        Links.Admitted in = links.admitSending(token, ticket, Caller.of(request), submissions.countedThrough(key));
        Link link = in.link();
        Submission submission = submissions.byKey(key);
        if (submission.linkId() != link.id()) {
            throw Problem.notFound("no-submission");
        }
        long length = number(request.getHeader("Upload-Length"), "upload-length");
        String said = request.getHeader("Upload-Metadata") == null ? "" : request.getHeader("Upload-Metadata");
        Map<String, String> metadata = metadata(said);
        String number = metadata.getOrDefault("item", "");
        Item item = rounds.items(link.roundId()).stream().filter(i -> Integer.toString(i.number()).equals(number)).findFirst()
                .orElseThrow(() -> Problem.refused("no-such-item"));
        Uploads.Told told = new Uploads.Told(metadata.getOrDefault("filename", ""), length, said, metadata.get("once"));
        Destination destination = new Destination(submission, in.round(), item);
        boolean bytesFollow = OFFSET_TYPE.equals(request.getContentType());
        Upload upload = bytesFollow
                ? transfers.run(link.id(), Caller.of(request), () -> uploads.beginWithBytes(link, destination, told, Caller.of(request), request.getInputStream()))
                : uploads.begin(link, destination, told, Caller.of(request));
        response.setHeader("Location", "/api/uploads/" + upload.id());
        response.setHeader("Upload-Expires", expires(upload));
        if (bytesFollow) {
            response.setHeader("Upload-Offset", Long.toString(upload.offsetBytes()));
        }
        response.setStatus(HttpStatus.CREATED.value());
    }

    @Operation(summary = "Tells Upload-Offset and Upload-Length (tus core)")
    @RequestMapping(path = "/api/uploads/{id}", method = RequestMethod.HEAD)
    void state(@PathVariable String id, HttpServletResponse response) {
        Upload upload = uploads.find(id);
        response.setHeader("Upload-Offset", Long.toString(upload.offsetBytes()));
        response.setHeader("Upload-Length", Long.toString(upload.lengthBytes()));
        response.setHeader("Upload-Expires", expires(upload));
        if (!upload.metadata().isEmpty()) {
            response.setHeader("Upload-Metadata", upload.metadata());
        }
        response.setStatus(HttpStatus.OK.value());
    }

    /** An upload that was begun may go on after closing, but not through a link that was paused or withdrawn. */
    @Operation(summary = "Takes bytes at Upload-Offset (tus core); 409 for a wrong offset, 415 for a wrong type, 423 while another request writes")
    @PatchMapping("/api/uploads/{id}")
    void receive(@PathVariable String id, HttpServletRequest request, HttpServletResponse response) throws IOException {
        if (!OFFSET_TYPE.equals(request.getContentType())) {
            throw Problem.of(Problem.Kind.WRONG_TYPE, "upload-type", OFFSET_TYPE);
        }
        long offset = number(request.getHeader("Upload-Offset"), "upload-offset");
        Upload upload = uploads.find(id);
        if (upload.state() == Upload.State.OPEN && offset == upload.offsetBytes() && request.getContentLengthLong() > upload.lengthBytes() - offset) {
            throw Problem.of(Problem.Kind.TOO_LARGE, "upload-surplus", upload.lengthBytes());
        }
        Link link = links.byId(submissions.byId(upload.submissionId()).linkId());
        if (!link.takesIn()) {
            throw Problem.of(Problem.Kind.FORBIDDEN, "link-takes-nothing");
        }
        if (link.terms().withdrawnAt() != null || link.terms().pausedAt() != null) {
            throw link.terms().withdrawnAt() != null ? Problem.notFound("link-unknown") : Problem.of(Problem.Kind.FORBIDDEN, "link-paused");
        }
        response.setHeader("Upload-Offset", Long.toString(transfers.run(link.id(), Caller.of(request), () -> uploads.receive(link, id, offset, Caller.of(request), request.getInputStream()))));
        response.setHeader("Upload-Expires", expires(upload));
        response.setStatus(HttpStatus.NO_CONTENT.value());
    }

    @Operation(summary = "Gives an unfinished upload up (tus termination)")
    @DeleteMapping("/api/uploads/{id}")
    void remove(@PathVariable String id, HttpServletResponse response) {
        uploads.remove(id);
        response.setStatus(HttpStatus.NO_CONTENT.value());
    }

    private String expires(Upload upload) {
        return HTTP_DATE.format(uploads.expires(upload));
    }

    private static long number(@Nullable String header, String code) {
        if (header == null || !header.matches("\\d{1,18}")) {
            throw Problem.unreadable(code);
        }
        return Long.parseLong(header);
    }

    private static Map<String, String> metadata(String header) {
        Map<String, String> values = new HashMap<>();
        if (header.isBlank()) {
            return values;
        }
        if (header.length() > LONGEST_METADATA) {
            throw Problem.unreadable("upload-metadata");
        }
        for (String pair : header.split(",")) {
            String[] parts = pair.strip().split(" ", 2);
            try {
                String before = values.put(parts[0], parts.length < 2 ? "" : new String(Base64.getDecoder().decode(parts[1].strip()), StandardCharsets.UTF_8));
                if (before != null) {
                    throw Problem.unreadable("upload-metadata");
                }
            } catch (IllegalArgumentException notBase64) {
                throw Problem.unreadable("upload-metadata");
            }
        }
        return values;
    }
}
