package oakbasket.server.frame;

import java.util.List;
import oakbasket.core.team.Permission;
import oakbasket.server.security.Needs;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** The web sites that may show the open link of a round. */
@RestController
@Needs(Permission.SET_UP)
class FrameController {

    /** Origins such as {@code https://www.example.org}. */
    record Origins(@Nullable List<String> origins) {
    }

    private final Frames frames;

    FrameController(Frames frames) {
        this.frames = frames;
    }

    @GetMapping("/api/frames/{round}")
    Origins origins(@PathVariable long round) {
        return new Origins(frames.of(round));
    }

    /** Sets the sites on which the page may stand; none of them means nowhere. */
    @PutMapping("/api/frames/{round}")
    Origins set(@PathVariable long round, @RequestBody Origins body) {
        return new Origins(frames.set(round, body.origins() == null ? List.of() : body.origins()));
    }
}
