package oakbasket.server.round;

import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.util.List;
import oakbasket.core.compose.RoundSheet;
import oakbasket.server.account.Account;
import oakbasket.server.web.BoundedBody;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** What rounds are made of again: templates, copies, series, blank forms; and changes of a gathering round. */
@RestController
class AgainController {

    record Keep(Templates.TemplateKind kind, @Nullable String name, RoundSheet sheet, boolean replace) {
    }

    record BeginSeries(long roundId, RoundsAgain.SeriesTerms terms) {
    }

    record ChangeSeries(int version, RoundsAgain.SeriesTerms terms) {
    }

    record PreviewSeries(@Nullable Long calendarId, RoundsAgain.SeriesTerms terms) {
    }

    record PauseSeries(boolean paused) {
    }

    record ChangeRound(int version, RoundSheet sheet) {
    }

    private final Rounds rounds;
    private final RoundChanges changes;
    private final Templates templates;
    private final RoundsAgain again;
    private final Forms forms;

    AgainController(Rounds rounds, RoundChanges changes, Templates templates, RoundsAgain again, Forms forms) {
        this.rounds = rounds;
        this.changes = changes;
        this.templates = templates;
        this.again = again;
        this.forms = forms;
    }

    @PostMapping("/api/rounds/{id}/copy")
    @ResponseStatus(HttpStatus.CREATED)
    Rounds.Draft copy(@PathVariable long id, @AuthenticationPrincipal Account account) {
        return rounds.copy(id, account.id());
    }

    @GetMapping("/api/rounds/{id}/change")
    RoundChanges.Changing change(@PathVariable long id) {
        return changes.sheet(id);
    }

    /** Whom a change would affect; stores nothing. */
    @PostMapping("/api/rounds/{id}/change/preview")
    RoundChanges.ChangePreview preview(@PathVariable long id, @RequestBody ChangeRound body) {
        return changes.preview(id, body.sheet());
    }

    @PostMapping("/api/rounds/{id}/change")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void apply(@PathVariable long id, @RequestBody ChangeRound body) {
        changes.apply(id, body.version(), body.sheet());
    }

    @GetMapping("/api/templates")
    List<Templates.KeptTemplate> templates() {
        return templates.all();
    }

    @PostMapping("/api/templates")
    @ResponseStatus(HttpStatus.CREATED)
    Templates.KeptTemplate keep(@RequestBody Keep body) {
        return templates.keep(body.kind(), body.name() == null ? "" : body.name(), body.sheet(), body.replace());
    }

    @DeleteMapping("/api/templates/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void discard(@PathVariable long id) {
        templates.discard(id);
    }

    @GetMapping("/api/series")
    List<RoundsAgain.ListedSeries> series() {
        return again.all();
    }

    /** Says a recurrence rule in words and shows its next dates; stores nothing. */
    @PostMapping("/api/series/preview")
    RoundsAgain.SeriesPreview preview(@RequestBody PreviewSeries body) {
        return again.preview(body.terms(), body.calendarId());
    }

    @PostMapping("/api/series")
    @ResponseStatus(HttpStatus.CREATED)
    RoundsAgain.ListedSeries begin(@RequestBody BeginSeries body, @AuthenticationPrincipal Account account) {
        return again.begin(body.roundId(), body.terms(), account.id());
    }

    @PutMapping("/api/series/{id}")
    RoundsAgain.ListedSeries change(@PathVariable long id, @RequestBody ChangeSeries body) {
        return again.change(id, body.version(), body.terms());
    }

    @PostMapping("/api/series/{id}/pause")
    RoundsAgain.ListedSeries pause(@PathVariable long id, @RequestBody PauseSeries body) {
        return again.pause(id, body.paused());
    }

    @DeleteMapping("/api/series/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void end(@PathVariable long id) {
        again.end(id);
    }

    /** Keeps a blank form; the body is the file itself. */
    @PostMapping("/api/forms")
    @ResponseStatus(HttpStatus.CREATED)
    Forms.KeptForm keepForm(@RequestParam(defaultValue = "form") String name, HttpServletRequest request) throws IOException {
        return forms.keep(name, BoundedBody.read(request, Forms.MOST_BYTES));
    }

    @GetMapping("/api/forms/{id}")
    ResponseEntity<byte[]> form(@PathVariable long id) {
        return forms.serve(id);
    }
}
