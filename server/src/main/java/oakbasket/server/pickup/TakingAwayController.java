package oakbasket.server.pickup;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Base64;
import java.util.HexFormat;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.concurrent.atomic.AtomicLong;
import oakbasket.core.parcel.ParcelCheck;
import oakbasket.server.parcel.ParcelFile;
import oakbasket.server.parcel.ParcelFiles;
import oakbasket.server.parcel.ParcelLinks;
import oakbasket.server.parcel.PickUps;
import oakbasket.server.problem.Problem;
import oakbasket.server.security.Limits;
import oakbasket.server.web.Caller;
import oakbasket.server.web.FileBytes;
import oakbasket.server.web.RangedAnswer;
import oakbasket.server.web.ServedFile;
import org.jspecify.annotations.Nullable;
import org.springframework.core.io.Resource;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.CookieValue;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;

/**
 * Files of parcels, taken away by whatever loads addresses: a browser, or {@code wget -c}. Each can be had from any byte on (RFC 9110), and is sent in a way in which no browser runs it. Browsers that
 * are refused are led to the page, which says why.
 */
@Controller
class TakingAwayController {

    private static final int LONGEST_LIST = 6_000;
    private static final String SANDBOX = "sandbox; default-src 'none'";
    private static final long LOOK_EVERY_NANOS = 50_000_000L;

    private final ParcelLinks links;
    private final ParcelFiles files;
    private final TakingAway taking;
    private final Limits limits;

    TakingAwayController(ParcelLinks links, ParcelFiles files, TakingAway taking, Limits limits) {
        this.links = links;
        this.files = files;
        this.taking = taking;
        this.limits = limits;
    }

    /** Everything in one step: the one file there is, or all of them as a ZIP. */
    @GetMapping("/d/{token}/all")
    void everything(@PathVariable String token, @CookieValue(value = PickUpController.TICKET, required = false) @Nullable String ticket, HttpServletRequest request, HttpServletResponse response)
            throws IOException {
        ParcelLinks.Admitted in = admitted(token, ticket, request, response);
        if (in == null) {
            return;
        }
        List<ParcelFile> all = taking.all(in.parcel());
        if (all.size() == 1) {
            one(in, all.get(0), request, response);
        } else {
            some(in, all, request, response);
        }
    }

    /** Some files as a ZIP. @param files their numbers, such as {@code 1-5,9} */
    @GetMapping("/d/{token}/chosen.zip")
    void chosen(@PathVariable String token, @RequestParam String files, @CookieValue(value = PickUpController.TICKET, required = false) @Nullable String ticket, HttpServletRequest request,
            HttpServletResponse response) throws IOException {
        ParcelLinks.Admitted in = admitted(token, ticket, request, response);
        if (in != null) {
            some(in, taking.numbered(in.parcel(), numbers(files)), request, response);
        }
    }

    /** One file; what stands behind its number is its name, for those who keep what they load under the last part of its address. */
    @GetMapping("/d/{token}/{number:\\d{1,6}}/{*name}")
    void file(@PathVariable String token, @PathVariable int number, @CookieValue(value = PickUpController.TICKET, required = false) @Nullable String ticket, HttpServletRequest request,
            HttpServletResponse response) throws IOException {
        ParcelLinks.Admitted in = admitted(token, ticket, request, response);
        if (in != null) {
            one(in, taking.numbered(in.parcel(), number), request, response);
        }
    }

    /** One file, to be looked at on the page. Where files can be taken away so and so often only, none can be looked at, since that is as good as taking it. */
    @GetMapping("/d/{token}/look/{number:\\d{1,6}}")
    ResponseEntity<Resource> look(@PathVariable String token, @PathVariable int number, @CookieValue(value = PickUpController.TICKET, required = false) @Nullable String ticket, HttpServletRequest request) {
        ParcelLinks.Admitted in = links.admit(token, ticket, Caller.of(request));
        limits.count(Limits.Kind.PICK_UP, in.link().id() + " " + Caller.of(request));
        if (in.parcel().mostPickUps() != null) {
            throw Problem.refused("no-preview");
        }
        ParcelFile file = taking.numbered(in.parcel(), number);
        return ServedFile.shown(files.path(file), Objects.requireNonNull(file.sha256()), file.mediaType());
    }

    private ParcelLinks.@Nullable Admitted admitted(String token, @Nullable String ticket, HttpServletRequest request, HttpServletResponse response) throws IOException {
        try {
            ParcelLinks.Admitted in = links.admit(token, ticket, Caller.of(request));
            limits.count(Limits.Kind.PICK_UP, in.link().id() + " " + Caller.of(request));
            return in;
        } catch (Problem refused) {
            lead(refused, token, request, response);
            return null;
        }
    }

    /** A person in a browser reads why on the page; a program gets the refusal itself. */
    private static void lead(Problem refused, String token, HttpServletRequest request, HttpServletResponse response) {
        if (!String.valueOf(request.getHeader(HttpHeaders.ACCEPT)).contains(MediaType.TEXT_HTML_VALUE) || !token.matches("[A-Za-z0-9_-]{1,100}")) {
            throw refused;
        }
        response.setStatus(HttpStatus.SEE_OTHER.value());
        response.setHeader(HttpHeaders.CACHE_CONTROL, "no-store");
        response.setHeader(HttpHeaders.LOCATION, "/p/" + token);
    }

    private void one(ParcelLinks.Admitted in, ParcelFile file, HttpServletRequest request, HttpServletResponse response) throws IOException {
        Path path = files.path(file);
        if (Files.size(path) != file.sizeBytes()) {
            throw Problem.of(Problem.Kind.GONE, "parcel-file-gone", file.fileName());
        }
        byte[] sha256 = Objects.requireNonNull(file.sha256());
        RangedAnswer what = RangedAnswer.of(request, file.sizeBytes(), HexFormat.of().formatHex(sha256));
        // Whoever is sent nothing takes nothing away.
        PickUps.Run run = what.sends() ? taking.begin(in.link(), in.parcel(), file, what.from(), Caller.of(request)) : null;
        head(response, MediaType.APPLICATION_OCTET_STREAM_VALUE, file.fileName());
        response.setHeader("Repr-Digest", "sha-256=:" + Base64.getEncoder().encodeToString(sha256) + ":");
        what.head(response);
        if (run != null) {
            try (run) {
                FileBytes.send(path, what.from(), what.to(), 0, FileBytes.out(response), watch(in, List.of(file), run));
            }
        }
    }

    private void some(ParcelLinks.Admitted in, List<ParcelFile> wanted, HttpServletRequest request, HttpServletResponse response) throws IOException {
        TakingAway.Packed packed = taking.packed(in.parcel(), wanted);
        RangedAnswer what = RangedAnswer.of(request, packed.archive().layout().length(), packed.archive().seal());
        PickUps.Run run = what.sends() ? taking.begin(in.link(), in.parcel(), packed, what.from(), Caller.of(request)) : null;
        head(response, "application/zip", packed.archive().name());
        what.head(response);
        if (run != null) {
            try (run) {
                FileBytes.send(packed.archive(), what, FileBytes.out(response), watch(in, packed.files(), run));
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
    private FileBytes.Watch watch(ParcelLinks.Admitted in, List<ParcelFile> sent, PickUps.Run run) {
        AtomicLong looked = new AtomicLong(System.nanoTime());
        return new FileBytes.Watch(() -> {
            long now = System.nanoTime();
            if (now - looked.get() < LOOK_EVERY_NANOS) {
                return true;
            }
            looked.set(now);
            return links.mayGoOn(in.link().id());
        }, (entry, from, to) -> run.left(sent.get(entry).id(), from, to));
    }

    private static Set<Integer> numbers(String typed) {
        Set<Integer> numbers = new LinkedHashSet<>();
        if (typed.length() > LONGEST_LIST || !typed.matches("\\d{1,6}(-\\d{1,6})?(,\\d{1,6}(-\\d{1,6})?)*")) {
            throw Problem.unreadable("unreadable");
        }
        for (String part : typed.split(",")) {
            int dash = part.indexOf('-');
            int from = Integer.parseInt(dash < 0 ? part : part.substring(0, dash));
            int to = Integer.parseInt(dash < 0 ? part : part.substring(dash + 1));
            for (int n = from; n <= to && numbers.size() <= ParcelCheck.MOST_FILES; n++) {
                numbers.add(n);
            }
        }
        return numbers;
    }
}
