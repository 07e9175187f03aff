package oakbasket.server.pickup;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Base64;
import java.util.HexFormat;
import java.util.List;
import java.util.Objects;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.Predicate;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.parcel.Parcel;
import oakbasket.server.parcel.ParcelFile;
import oakbasket.server.parcel.ParcelFiles;
import oakbasket.server.parcel.ParcelLink;
import oakbasket.server.parcel.PickUps;
import oakbasket.server.problem.Problem;
import oakbasket.server.web.Caller;
import oakbasket.server.web.FileBytes;
import oakbasket.server.web.RangedAnswer;
import oakbasket.server.words.SenderLanguages;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.stereotype.Component;

/** Sends files that are handed out, from any byte on (RFC 9110), in a way in which no browser runs them, and counts what is taken away. */
@Component
public class TakingDownload {

    /** Somebody's way to files. @param mayGoOn whether files may still be on their way to them */
    public record Way(ParcelLink link, Parcel parcel, Predicate<List<ParcelFile>> mayGoOn) {
    }

    private static final String SANDBOX = "sandbox; default-src 'none'";
    /** How often at most it is looked whether somebody may go on, while links and parcels change. */
    private static final long LOOK_EVERY_NANOS = 50_000_000L;
    /** How often at least. With many at once, looking was half of the work of sending. */
    private static final long LOOK_ANYWAY_NANOS = 2_000_000_000L;

    private final ParcelFiles files;
    private final TakingAway taking;
    /** So many times something changed by which files are on their way. */
    private final AtomicLong changes = new AtomicLong();

    TakingDownload(ParcelFiles files, TakingAway taking, LiveHub live) {
        this.files = files;
        this.taking = taking;
        live.listen(event -> {
            // Not where something was taken away: a hundred who come to the end at once would have a hundred others look.
            if (event.equals(LiveEvent.PARCELS) || event.type().equals(LiveEvent.LINK)) {
                changes.incrementAndGet();
            }
        });
    }

    /** One file. */
    public void one(Way way, ParcelFile file, HttpServletRequest request, HttpServletResponse response) throws IOException {
        Path path = files.path(file);
        if (Files.size(path) != file.sizeBytes()) {
            throw Problem.of(Problem.Kind.GONE, "parcel-file-gone", file.fileName());
        }
        byte[] sha256 = Objects.requireNonNull(file.sha256());
        RangedAnswer what = RangedAnswer.of(request, file.sizeBytes(), HexFormat.of().formatHex(sha256));
        // Whoever is sent nothing takes nothing away.
        PickUps.Run run = what.sends() ? taking.begin(way.link(), way.parcel(), file, what.from(), Caller.of(request)) : null;
        head(response, MediaType.APPLICATION_OCTET_STREAM_VALUE, file.fileName());
        response.setHeader("Repr-Digest", "sha-256=:" + Base64.getEncoder().encodeToString(sha256) + ":");
        what.head(response);
        if (run != null) {
            try (run) {
                FileBytes.send(path, what.from(), what.to(), 0, FileBytes.Out.of(request, response), watch(way, List.of(file), run));
            }
        }
    }

    /** Some files as a ZIP: those that are there and are what was checked; the others are named in it. */
    public void some(Way way, List<ParcelFile> wanted, HttpServletRequest request, HttpServletResponse response) throws IOException {
        ParcelFiles.Present present = files.present(wanted);
        if (present.there().isEmpty()) {
            throw Problem.of(Problem.Kind.GONE, "parcel-file-gone", wanted.get(0).fileName());
        }
        TakingAway.Packed packed = taking.packed(way.parcel(), present, SenderLanguages.preferred(request.getHeader(HttpHeaders.ACCEPT_LANGUAGE)));
        RangedAnswer what = RangedAnswer.of(request, packed.archive().layout().length(), packed.archive().seal());
        PickUps.Run run = what.sends() ? taking.begin(way.link(), way.parcel(), packed, what.from(), Caller.of(request)) : null;
        head(response, "application/zip", packed.archive().name());
        what.head(response);
        if (run != null) {
            try (run) {
                FileBytes.send(packed.archive(), what, FileBytes.Out.of(request, response), watch(way, packed.files(), run));
            }
        }
    }

    private static void head(HttpServletResponse response, String type, String name) {
        response.setContentType(type);
        response.setHeader(HttpHeaders.CONTENT_DISPOSITION, ContentDisposition.attachment().filename(name, StandardCharsets.UTF_8).build().toString());
        response.setHeader("Content-Security-Policy", SANDBOX);
        response.setHeader("X-Robots-Tag", "noindex");
    }

    /** Breaks off, within a moment, what is taken away through a link that is stopped or withdrawn meanwhile. */
    private FileBytes.Watch watch(Way way, List<ParcelFile> sent, PickUps.Run run) {
        AtomicLong looked = new AtomicLong(System.nanoTime());
        AtomicLong seen = new AtomicLong(changes.get());
        return new FileBytes.Watch(() -> {
            long now = System.nanoTime();
            long since = now - looked.get();
            if (since < LOOK_EVERY_NANOS || since < LOOK_ANYWAY_NANOS && changes.get() == seen.get()) {
                return true;
            }
            looked.set(now);
            // Before it is looked: what changes after that is seen the next time.
            seen.set(changes.get());
            return way.mayGoOn().test(sent);
        }, (entry, from, to) -> {
            if (entry < sent.size()) {
                run.left(sent.get(entry).id(), from, to);
            }
        });
    }
}
