package oakbasket.server.live;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import oakbasket.core.team.Permission;
import oakbasket.server.account.Account;
import oakbasket.server.security.Needs;
import org.springframework.http.MediaType;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/** The stream of events for an open desk. */
@RestController
@Needs(Permission.CHANGE)
class LiveController {

    private final OpenDesks desks;

    LiveController(OpenDesks desks) {
        this.desks = desks;
    }

    @GetMapping(path = "/api/live", produces = MediaType.TEXT_EVENT_STREAM_VALUE)
    SseEmitter live(HttpServletRequest request, HttpServletResponse response, @AuthenticationPrincipal Account account) {
        response.setHeader("X-Accel-Buffering", "no");
        response.setHeader("Cache-Control", "no-store");
        return desks.open(account.id(), request.getSession().getId());
    }
}
