package oakbasket.server.pickup;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import oakbasket.core.parcel.ParcelCheck;
import oakbasket.server.parcel.ParcelFile;
import oakbasket.server.parcel.ParcelFiles;
import oakbasket.server.parcel.ParcelLinks;
import oakbasket.server.problem.Problem;
import oakbasket.server.security.FromOutside;
import oakbasket.server.security.Limits;
import oakbasket.server.web.Caller;
import oakbasket.server.web.ServedFile;
import org.jspecify.annotations.Nullable;
import org.springframework.core.io.Resource;
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
@FromOutside
class TakingAwayController {

    private static final int LONGEST_LIST = 6_000;

    private final ParcelLinks links;
    private final ParcelFiles files;
    private final TakingAway taking;
    private final TakingDownload download;
    private final Limits limits;

    TakingAwayController(ParcelLinks links, ParcelFiles files, TakingAway taking, TakingDownload download, Limits limits) {
        this.download = download;
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
            download.one(way(in), all.get(0), request, response);
        } else {
            download.some(way(in), all, request, response);
        }
    }

    /** Some files as a ZIP. @param files their numbers, such as {@code 1-5,9} */
    @GetMapping("/d/{token}/chosen.zip")
    void chosen(@PathVariable String token, @RequestParam String files, @CookieValue(value = PickUpController.TICKET, required = false) @Nullable String ticket, HttpServletRequest request,
            HttpServletResponse response) throws IOException {
        ParcelLinks.Admitted in = admitted(token, ticket, request, response);
        if (in != null) {
            download.some(way(in), taking.numbered(in.parcel(), numbers(files)), request, response);
        }
    }

    /** One file; what stands behind its number is its name, for those who keep what they load under the last part of its address. */
    @GetMapping("/d/{token}/{number:\\d{1,6}}/{*name}")
    void file(@PathVariable String token, @PathVariable int number, @CookieValue(value = PickUpController.TICKET, required = false) @Nullable String ticket, HttpServletRequest request,
            HttpServletResponse response) throws IOException {
        ParcelLinks.Admitted in = admitted(token, ticket, request, response);
        if (in != null) {
            download.one(way(in), taking.numbered(in.parcel(), number), request, response);
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

    private TakingDownload.Way way(ParcelLinks.Admitted in) {
        return new TakingDownload.Way(in.link(), in.parcel(), sent -> links.mayGoOn(in.link()));
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
