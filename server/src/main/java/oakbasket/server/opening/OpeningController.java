package oakbasket.server.opening;

import oakbasket.core.team.Permission;
import oakbasket.server.security.Needs;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Opening rounds. */
@RestController
@Needs(Permission.CHANGE)
class OpeningController {

    /** The version of the draft as it was seen. */
    record Open(int version) {
    }

    private final Opening opening;

    OpeningController(Opening opening) {
        this.opening = opening;
    }

    /** What opening would do, to be confirmed. */
    @GetMapping("/api/rounds/{id}/opening")
    Opening.OpeningPreview preview(@PathVariable long id) {
        return opening.preview(id);
    }

    @PostMapping("/api/rounds/{id}/open")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void open(@PathVariable long id, @RequestBody Open body) {
        opening.open(id, body.version());
    }
}
