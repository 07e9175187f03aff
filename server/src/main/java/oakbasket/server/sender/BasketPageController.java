package oakbasket.server.sender;

import jakarta.servlet.http.HttpServletRequest;
import oakbasket.server.security.FromOutside;
import oakbasket.server.web.Caller;
import org.springframework.http.CacheControl;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;

/** Serves the page of senders. */
@Controller
@FromOutside
class BasketPageController {

    private final BasketDocument document;

    BasketPageController(BasketDocument document) {
        this.document = document;
    }

    /** Also where a link was copied badly: the page then says what to do. Only the last part of the address counts. */
    @GetMapping({"/b", "/b/**", "/B/**"})
    ResponseEntity<byte[]> page(HttpServletRequest request) {
        return html(document.behind(token(request), Caller.of(request)));
    }

    /** Pages that ask for their data themselves: the rehearsal of the desk, and the check of a receipt. */
    @GetMapping({"/rehearsal/{round}", "/receipt"})
    ResponseEntity<byte[]> withoutData() {
        return html(document.empty());
    }

    /** The last part of the path that is not empty. */
    static String token(HttpServletRequest request) {
        String path = request.getRequestURI().replaceAll("/+$", "");
        return path.substring(path.lastIndexOf('/') + 1);
    }

    private static ResponseEntity<byte[]> html(byte[] document) {
        return ResponseEntity.ok().contentType(MediaType.valueOf("text/html;charset=UTF-8")).cacheControl(CacheControl.noStore()).header("Vary", "Accept-Language").body(document);
    }
}
