package oakbasket.server.form;

import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import oakbasket.core.team.Permission;
import oakbasket.server.security.Needs;
import oakbasket.server.web.BoundedBody;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Keeping blank forms, for the desk. */
@RestController
@Needs(Permission.CHANGE)
class FormController {

    private final Forms forms;

    FormController(Forms forms) {
        this.forms = forms;
    }

    /** Keeps a blank form; the body is the file itself. */
    @PostMapping("/api/forms")
    @ResponseStatus(HttpStatus.CREATED)
    Forms.KeptForm keepForm(@RequestParam(defaultValue = "form") String name, HttpServletRequest request) throws IOException {
        return forms.keep(name, BoundedBody.read(request, Forms.MOST_BYTES));
    }

    @GetMapping("/api/forms/{id}")
    ResponseEntity<byte[]> form(@PathVariable long id) {
        return FormDownload.of(forms.byId(id));
    }
}
