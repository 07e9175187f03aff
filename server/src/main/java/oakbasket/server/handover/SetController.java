package oakbasket.server.handover;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import oakbasket.core.team.Permission;
import oakbasket.server.security.Needs;
import oakbasket.server.storage.Archive;
import oakbasket.server.web.FileBytes;
import oakbasket.server.web.RangedAnswer;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Hands the set of a closed round over, from any byte on (RFC 9110, range requests). */
@RestController
@Needs(Permission.CHANGE)
class SetController {

    private final RoundSets sets;

    SetController(RoundSets sets) {
        this.sets = sets;
    }

    @GetMapping("/api/sets/{round}")
    RoundSets.Readiness readiness(@PathVariable long round) {
        return sets.readiness(round);
    }

    /** Has every file read and compared with its hash. */
    @PostMapping("/api/sets/{round}")
    @ResponseStatus(HttpStatus.ACCEPTED)
    RoundSets.Readiness prepare(@PathVariable long round) {
        sets.prepare(round);
        return sets.readiness(round);
    }

    @GetMapping("/api/sets/{round}/set.zip")
    void zip(@PathVariable long round, HttpServletRequest request, HttpServletResponse response) throws IOException {
        send(sets.archive(round, RoundSets.Form.ZIP), request, response);
    }

    /** The same as a BagIt bag (RFC 8493) with SHA-256 manifests. */
    @GetMapping("/api/sets/{round}/bag.zip")
    void bag(@PathVariable long round, HttpServletRequest request, HttpServletResponse response) throws IOException {
        send(sets.archive(round, RoundSets.Form.BAG), request, response);
    }

    private static void send(Archive archive, HttpServletRequest request, HttpServletResponse response) throws IOException {
        response.setContentType("application/zip");
        response.setHeader(HttpHeaders.CONTENT_DISPOSITION, ContentDisposition.attachment().filename(archive.name(), StandardCharsets.UTF_8).build().toString());
        RangedAnswer what = RangedAnswer.of(request, archive.layout().length(), archive.seal());
        what.head(response);
        if (what.sends()) {
            FileBytes.send(archive, what, FileBytes.Out.of(request, response), FileBytes.NOBODY);
        }
    }
}
