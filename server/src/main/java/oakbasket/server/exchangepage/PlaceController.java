package oakbasket.server.exchangepage;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import oakbasket.server.Settings;
import oakbasket.server.exchange.Exchanges;
import oakbasket.server.link.Links;
import oakbasket.server.problem.Problem;
import oakbasket.server.security.FromOutside;
import oakbasket.server.security.PasscodeTickets;
import oakbasket.server.web.Caller;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseCookie;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** What the person of an exchange says. Everything is said through the link in a header. */
@RestController
@FromOutside
class PlaceController {

    /** The cookie that stands for a passcode where files are taken away, which no header can go with. It goes to the addresses of this one link only. */
    static final String TICKET = "oak-ticket";

    record InvitationAnswer(@Nullable Boolean accepts) {
    }

    private final Links links;
    private final ExchangePage pages;
    private final Exchanges exchanges;
    private final Settings settings;

    PlaceController(Links links, ExchangePage pages, Exchanges exchanges, Settings settings) {
        this.links = links;
        this.pages = pages;
        this.exchanges = exchanges;
        this.settings = settings;
    }

    /** Accepts the invitation, or declines it. */
    @PostMapping("/api/place/answer")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void answerInvitation(@RequestHeader(value = "Oak-Link", required = false) @Nullable String token,
            @RequestHeader(value = "Oak-Ticket", required = false) @Nullable String ticket,
            @RequestBody InvitationAnswer body, HttpServletRequest request) {
        if (body.accepts() == null) {
            throw Problem.unreadable("unreadable");
        }
        exchanges.answer(pages.exchange(links.admit(token, ticket, Caller.of(request)).link()), body.accepts());
    }

    /** Has the ticket of a passcode go along where files are taken away. */
    @PostMapping("/api/place/ticket")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void carryTicket(@RequestHeader(value = "Oak-Link", required = false) @Nullable String token,
            @RequestHeader(value = "Oak-Ticket", required = false) @Nullable String ticket,
            HttpServletRequest request, HttpServletResponse response) {
        pages.exchange(links.admit(token, ticket, Caller.of(request)).link());
        if (ticket != null && !ticket.isEmpty()) {
            response.addHeader(HttpHeaders.SET_COOKIE, ResponseCookie.from(TICKET, ticket).path("/x/" + token).httpOnly(true).sameSite("Strict").secure(settings.https())
                    .maxAge(PasscodeTickets.LIFE).build().toString());
        }
    }
}
