package oakbasket.server.takeaway;

import jakarta.servlet.http.HttpServletRequest;
import java.nio.charset.StandardCharsets;
import oakbasket.core.team.Permission;
import oakbasket.server.Settings;
import oakbasket.server.account.Account;
import oakbasket.server.security.FromOutside;
import oakbasket.server.security.Needs;
import oakbasket.server.web.Caller;
import oakbasket.server.web.PublicAddress;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** The calendar to subscribe to, and its address. */
@RestController
@FromOutside
class FeedController {

    record Feed(@Nullable String url) {
    }

    private final Feeds feeds;
    private final Settings settings;

    FeedController(Feeds feeds, Settings settings) {
        this.feeds = feeds;
        this.settings = settings;
    }

    /** The address of the own feed; none before it was asked for. */
    @Needs(Permission.OWN)
    @GetMapping("/api/feed")
    Feed mine(@AuthenticationPrincipal Account account, HttpServletRequest request) {
        return new Feed(feeds.token(account.id()).map(token -> PublicAddress.of(settings, request) + "/calendar/" + token + ".ics").orElse(null));
    }

    /** Makes an address for the own feed; an older one ends. */
    @Needs(Permission.OWN)
    @PostMapping("/api/feed")
    Feed make(@AuthenticationPrincipal Account account, HttpServletRequest request) {
        feeds.make(account.id());
        return mine(account, request);
    }

    @Needs(Permission.OWN)
    @DeleteMapping("/api/feed")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void end(@AuthenticationPrincipal Account account) {
        feeds.end(account.id());
    }

    @GetMapping("/calendar/{token}.ics")
    ResponseEntity<byte[]> calendar(@PathVariable String token, HttpServletRequest request) {
        byte[] content = feeds.calendar(token, Caller.of(request), PublicAddress.of(settings, request)).getBytes(StandardCharsets.UTF_8);
        return ResponseEntity.ok().header("Content-Type", "text/calendar;charset=UTF-8").header("Cache-Control", "no-store").body(content);
    }
}
