package oakbasket.server.series;

import java.util.List;
import oakbasket.core.team.Permission;
import oakbasket.server.account.Account;
import oakbasket.server.problem.Problem;
import oakbasket.server.security.Needs;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Rounds that come again. */
@RestController
@Needs(Permission.CHANGE)
class SeriesController {

    record BeginSeries(long roundId, SeriesRounds.SeriesTerms terms) {
    }

    record ChangeSeries(int version, SeriesRounds.SeriesTerms terms) {
    }

    record PreviewSeries(@Nullable Long calendarId, SeriesRounds.SeriesTerms terms) {
    }

    record PauseSeries(boolean paused) {
    }

    private final SeriesRounds series;

    SeriesController(SeriesRounds series) {
        this.series = series;
    }

    @GetMapping("/api/series")
    List<SeriesRounds.ListedSeries> series() {
        return series.all();
    }

    /** Says a recurrence rule in words and shows its next dates; stores nothing. */
    @PostMapping("/api/series/preview")
    SeriesRounds.SeriesPreview preview(@RequestBody PreviewSeries body) {
        return series.preview(terms(body.terms()), body.calendarId());
    }

    @PostMapping("/api/series")
    @ResponseStatus(HttpStatus.CREATED)
    SeriesRounds.ListedSeries begin(@RequestBody BeginSeries body, @AuthenticationPrincipal Account account) {
        return series.begin(body.roundId(), terms(body.terms()), account.id());
    }

    @PutMapping("/api/series/{id}")
    SeriesRounds.ListedSeries change(@PathVariable long id, @RequestBody ChangeSeries body) {
        return series.change(id, body.version(), terms(body.terms()));
    }

    @PostMapping("/api/series/{id}/pause")
    SeriesRounds.ListedSeries pause(@PathVariable long id, @RequestBody PauseSeries body) {
        return series.pause(id, body.paused());
    }

    @DeleteMapping("/api/series/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void end(@PathVariable long id) {
        series.end(id);
    }

    private static SeriesRounds.SeriesTerms terms(SeriesRounds.@Nullable SeriesTerms typed) {
        if (typed == null) {
            throw Problem.unreadable("unreadable");
        }
        return typed;
    }
}
