package oakbasket.server.exchangepage;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.List;
import oakbasket.server.decode.work.DrawPage;
import oakbasket.server.exchange.Exchange;
import oakbasket.server.exchange.Exchanges;
import oakbasket.server.link.Link;
import oakbasket.server.link.Links;
import oakbasket.server.parcel.ExchangeParcels;
import oakbasket.server.parcel.ParcelFile;
import oakbasket.server.parcel.ParcelFiles;
import oakbasket.server.pickup.TakingDownload;
import oakbasket.server.problem.Problem;
import oakbasket.server.security.FromOutside;
import oakbasket.server.security.Limits;
import oakbasket.server.web.Caller;
import org.jspecify.annotations.Nullable;
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
 * Files that lie in an exchange for its person: taken away by whatever loads addresses, or looked at, as far as either is allowed. Browsers that are refused are led to the page, which says why.
 */
@Controller
@FromOutside
class PlaceFilesController {

    /** An exchange, and the link by which somebody came to it. */
    private record Behind(Link link, Exchange exchange) {
    }

    private final Links links;
    private final ExchangePage pages;
    private final Exchanges exchanges;
    private final ExchangeParcels parcels;
    private final ParcelFiles files;
    private final DrawnFile drawn;
    private final TakingDownload download;
    private final Limits limits;

    PlaceFilesController(Links links, ExchangePage pages, Exchanges exchanges, ExchangeParcels parcels, ParcelFiles files, DrawnFile drawn, TakingDownload download, Limits limits) {
        this.links = links;
        this.pages = pages;
        this.exchanges = exchanges;
        this.parcels = parcels;
        this.files = files;
        this.drawn = drawn;
        this.download = download;
        this.limits = limits;
    }

    /** Everything that lies there in one step: the one file, or all of them as a ZIP. */
    @GetMapping("/x/{token}/all")
    void everythingThere(@PathVariable String token, @CookieValue(value = PlaceController.TICKET, required = false) @Nullable String ticket, HttpServletRequest request, HttpServletResponse response)
            throws IOException {
        Behind behind = taking(token, ticket, request, response);
        if (behind == null) {
            return;
        }
        List<ParcelFile> all = pages.files(behind.exchange());
        if (all.isEmpty()) {
            throw Problem.notFound("no-file");
        } else if (all.size() == 1) {
            download.one(way(behind), all.get(0), request, response);
        } else {
            download.some(way(behind), all, request, response);
        }
    }

    /** One file; what stands behind its number is its name, for those who keep what they load under the last part of its address. */
    @GetMapping("/x/{token}/{number:\\d{1,6}}/{*name}")
    void fileThere(@PathVariable String token, @PathVariable int number, @CookieValue(value = PlaceController.TICKET, required = false) @Nullable String ticket, HttpServletRequest request,
            HttpServletResponse response) throws IOException {
        Behind behind = taking(token, ticket, request, response);
        if (behind != null) {
            download.one(way(behind), numbered(behind.exchange(), number), request, response);
        }
    }

    /** A drawing of one page of a file, for whoever may see it; the header {@code Oak-Pages} tells how many there are. */
    @GetMapping("/x/{token}/look/{number:\\d{1,6}}")
    ResponseEntity<byte[]> lookThere(@PathVariable String token, @PathVariable int number, @RequestParam(defaultValue = "1") int page,
            @CookieValue(value = PlaceController.TICKET, required = false) @Nullable String ticket, HttpServletRequest request) {
        Exchange exchange = admitted(token, ticket, request).exchange();
        if (!exchange.rights().see()) {
            throw Problem.of(Problem.Kind.FORBIDDEN, "exchange-no-look");
        }
        ParcelFile file = numbered(exchange, number);
        DrawPage.Drawn shown = drawn.draw(files.path(file), file, page);
        return ResponseEntity.ok().contentType(MediaType.IMAGE_PNG).header(HttpHeaders.CACHE_CONTROL, "no-store").header("Content-Security-Policy", "sandbox; default-src 'none'")
                .header("Oak-Pages", String.valueOf(shown.pages())).body(shown.png());
    }

    private ParcelFile numbered(Exchange exchange, int number) {
        return pages.files(exchange).stream().filter(file -> file.number() == number).findFirst().orElseThrow(() -> Problem.notFound("no-file"));
    }

    private Behind admitted(String token, @Nullable String ticket, HttpServletRequest request) {
        Links.Admitted in = links.admit(token, ticket, Caller.of(request));
        limits.count(Limits.Kind.PICK_UP, "x" + in.link().id() + " " + Caller.of(request));
        return new Behind(in.link(), pages.exchange(in.link()));
    }

    private @Nullable Behind taking(String token, @Nullable String ticket, HttpServletRequest request, HttpServletResponse response) throws IOException {
        try {
            Behind behind = admitted(token, ticket, request);
            if (!behind.exchange().rights().takeAway()) {
                throw Problem.of(Problem.Kind.FORBIDDEN, "exchange-no-taking");
            }
            return behind;
        } catch (Problem refused) {
            if (!String.valueOf(request.getHeader(HttpHeaders.ACCEPT)).contains(MediaType.TEXT_HTML_VALUE) || !token.matches("[A-Za-z0-9_-]{1,100}")) {
                throw refused;
            }
            response.setStatus(HttpStatus.SEE_OTHER.value());
            response.setHeader(HttpHeaders.CACHE_CONTROL, "no-store");
            response.setHeader(HttpHeaders.LOCATION, "/b/" + token);
            return null;
        }
    }

    private TakingDownload.Way way(Behind behind) {
        Exchange exchange = behind.exchange();
        return new TakingDownload.Way(parcels.way(exchange.wayId()), parcels.parcel(exchange.id()),
                sent -> exchanges.mayGoOn(exchange.id(), behind.link(), sent.stream().map(ParcelFile::id).toList()));
    }
}
