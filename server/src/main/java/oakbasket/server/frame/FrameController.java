package oakbasket.server.frame;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.CacheControl;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** The sites of a round, and the page that may stand in them. */
@RestController
class FrameController {

    private static final String POLICY = "Content-Security-Policy";

    /** Origins such as {@code https://www.example.org}. */
    record Origins(@Nullable List<String> origins) {
    }

    private final Frames frames;
    private final oakbasket.server.web.PageController pages;

    FrameController(Frames frames, oakbasket.server.web.PageController pages) {
        this.frames = frames;
        this.pages = pages;
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

    /** The page of senders as it stands in a frame. Other pages of this server never do. */
    @GetMapping("/f/**")
    ResponseEntity<byte[]> page(HttpServletRequest request, HttpServletResponse response) {
        String path = request.getRequestURI();
        String policy = response.getHeader(POLICY);
        response.setHeader("X-Frame-Options", null);
        response.setHeader(POLICY, policy.replace("frame-ancestors 'none'", "frame-ancestors " + frames.ancestors(path.substring(path.lastIndexOf('/') + 1))));
        return ResponseEntity.ok().contentType(MediaType.valueOf("text/html;charset=UTF-8")).cacheControl(CacheControl.noStore()).body(pages.basketPage());
    }
}
