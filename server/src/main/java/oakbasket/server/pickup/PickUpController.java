package oakbasket.server.pickup;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.util.List;
import oakbasket.server.Settings;
import oakbasket.server.parcel.ParcelLinks;
import oakbasket.server.security.FromOutside;
import oakbasket.server.security.PasscodeTickets;
import oakbasket.server.web.Caller;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseCookie;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** What the pick-up page asks. Everything is said through the link in a header. */
@RestController
@FromOutside
class PickUpController {

    /** The cookie that stands for a passcode where files are taken away, which no header can go with. It goes to the addresses of this one link only. */
    static final String TICKET = "oak-ticket";

    record TypedPasscode(@Nullable String passcode) {
    }

    record PickUpTicket(String ticket) {
    }

    private final ParcelLinks links;
    private final PickUpPage pages;
    private final Settings settings;

    PickUpController(ParcelLinks links, PickUpPage pages, Settings settings) {
        this.links = links;
        this.pages = pages;
        this.settings = settings;
    }

    @GetMapping("/api/pick-up")
    PickUpPage.PickUp pickUp(@RequestHeader(value = "Oak-Link", required = false) @Nullable String token,
            @RequestHeader(value = "Oak-Ticket", required = false) @Nullable String ticket,
            HttpServletRequest request) {
        ParcelLinks.Admitted in = links.admit(token, ticket, Caller.of(request));
        return pages.behind(in.link(), in.parcel());
    }

    /** Further files. */
    @GetMapping("/api/pick-up/files")
    List<PickUpPage.OfferedFile> moreFiles(@RequestHeader(value = "Oak-Link", required = false) @Nullable String token,
            @RequestHeader(value = "Oak-Ticket", required = false) @Nullable String ticket,
            @RequestParam int from, HttpServletRequest request) {
        ParcelLinks.Admitted in = links.admit(token, ticket, Caller.of(request));
        return pages.more(in.link(), in.parcel(), from);
    }

    /** Somebody sees the page. */
    @PostMapping("/api/pick-up/seen")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void seenByPerson(@RequestHeader(value = "Oak-Link", required = false) @Nullable String token,
            @RequestHeader(value = "Oak-Ticket", required = false) @Nullable String ticket,
            HttpServletRequest request) {
        links.seen(links.admit(token, ticket, Caller.of(request)).link());
    }

    /** Takes a passcode; the ticket also goes along as a cookie. */
    @PostMapping("/api/pick-up/passcode")
    PickUpTicket unlockPickUp(@RequestHeader(value = "Oak-Link", required = false) @Nullable String token, @RequestBody TypedPasscode typed, HttpServletRequest request, HttpServletResponse response) {
        String ticket = links.unlock(token, typed.passcode() == null ? "" : typed.passcode(), Caller.of(request));
        if (!ticket.isEmpty()) {
            response.addHeader(HttpHeaders.SET_COOKIE, ResponseCookie.from(TICKET, ticket).path("/d/" + token).httpOnly(true).sameSite("Strict").secure(settings.https())
                    .maxAge(PasscodeTickets.LIFE).build().toString());
        }
        return new PickUpTicket(ticket);
    }
}
