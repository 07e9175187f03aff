package oakbasket.server.frame;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import oakbasket.server.security.FromOutside;
import oakbasket.server.sender.BasketDocument;
import oakbasket.server.web.Caller;
import org.springframework.http.CacheControl;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;

/** The page of senders as it stands in a frame. Other pages of this server never do. */
@Controller
@FromOutside
class FramePageController {

    private static final String POLICY = "Content-Security-Policy";

    private final Frames frames;
    private final BasketDocument document;

    FramePageController(Frames frames, BasketDocument document) {
        this.frames = frames;
        this.document = document;
    }

    @GetMapping("/f/**")
    ResponseEntity<byte[]> page(HttpServletRequest request, HttpServletResponse response) {
        String path = request.getRequestURI().replaceAll("/+$", "");
        String token = path.substring(path.lastIndexOf('/') + 1);
        String policy = response.getHeader(POLICY);
        response.setHeader("X-Frame-Options", null);
        response.setHeader(POLICY, policy.replace("frame-ancestors 'none'", "frame-ancestors " + frames.ancestors(token)));
        return ResponseEntity.ok().contentType(MediaType.valueOf("text/html;charset=UTF-8")).cacheControl(CacheControl.noStore()).body(document.behind(token, Caller.of(request)));
    }
}
