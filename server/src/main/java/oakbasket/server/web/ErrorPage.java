package oakbasket.server.web;

import io.swagger.v3.oas.annotations.Hidden;
import jakarta.servlet.RequestDispatcher;
import jakarta.servlet.http.HttpServletRequest;
import oakbasket.server.security.FromOutside;
import org.springframework.boot.webmvc.error.ErrorController;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Tells as a problem detail what was refused before any controller saw it, such as an address with doubled slashes. */
@Hidden
@RestController
@FromOutside
class ErrorPage implements ErrorController {

    private final ProblemWriter writer;

    ErrorPage(ProblemWriter writer) {
        this.writer = writer;
    }

    @RequestMapping("/error")
    ResponseEntity<ProblemDetail> error(HttpServletRequest request) {
        Object code = request.getAttribute(RequestDispatcher.ERROR_STATUS_CODE);
        HttpStatus known = code instanceof Integer number ? HttpStatus.resolve(number) : null;
        HttpStatus status = known == null ? HttpStatus.NOT_FOUND : known;
        return ResponseEntity.status(status).contentType(MediaType.APPLICATION_PROBLEM_JSON).body(writer.detail(status, status == HttpStatus.NOT_FOUND ? "not-found" : "request"));
    }
}
