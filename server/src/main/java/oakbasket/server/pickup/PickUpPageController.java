package oakbasket.server.pickup;

import jakarta.servlet.http.HttpServletRequest;
import oakbasket.server.security.FromOutside;
import oakbasket.server.web.Caller;
import org.springframework.http.CacheControl;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;

/** Serves the pick-up page. */
@Controller
@FromOutside
class PickUpPageController {

    private final PickUpDocument document;

    PickUpPageController(PickUpDocument document) {
        this.document = document;
    }

    /** Also where a link was copied badly: the page then says what to do. Only the last part of the address counts. */
    @GetMapping({"/p", "/p/**", "/P/**"})
    ResponseEntity<byte[]> page(HttpServletRequest request) {
        String path = request.getRequestURI().replaceAll("/+$", "");
        return ResponseEntity.ok().contentType(MediaType.valueOf("text/html;charset=UTF-8")).cacheControl(CacheControl.noStore()).header("Vary", "Accept-Language")
                .body(document.behind(path.substring(path.lastIndexOf('/') + 1), Caller.of(request)));
    }
}
