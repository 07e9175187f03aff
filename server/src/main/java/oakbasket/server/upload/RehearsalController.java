package oakbasket.server.upload;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import oakbasket.core.arrival.ScanVerdict;
import oakbasket.core.team.Permission;
import oakbasket.server.basket.Submissions;
import oakbasket.server.problem.Problem;
import oakbasket.server.round.Drafts;
import oakbasket.server.round.Item;
import oakbasket.server.scan.Scanner;
import oakbasket.server.security.Needs;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** For the desk: refuses in a rehearsal what a real sending would refuse. Nothing is kept. */
@RestController
@Needs(Permission.CHANGE)
class RehearsalController {

    record RehearsedWho(@Nullable String name, @Nullable String email) {
    }

    private final Drafts drafts;
    private final ContentGate gate;
    private final Scanner scanner;

    RehearsalController(Drafts drafts, ContentGate gate, Scanner scanner) {
        this.drafts = drafts;
        this.gate = gate;
        this.scanner = scanner;
    }

    /** Looks at who somebody says they are. */
    @PostMapping("/api/rounds/{id}/rehearsal/who")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void rehearseWho(@PathVariable long id, @RequestBody RehearsedWho who) {
        drafts.rehearse(id);
        Submissions.declared(who.name() == null ? "" : who.name(), who.email() == null ? "" : who.email());
    }

    /** Looks at a file as it would be looked at when it came. */
    @PostMapping("/api/rounds/{id}/rehearsal/files")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void rehearseFile(@PathVariable long id, @RequestParam int item, @RequestParam String name, InputStream body) throws IOException {
        Drafts.Rehearsed rehearsed = drafts.rehearse(id);
        Item wanted = rehearsed.items().stream().filter(one -> one.number() == item).findFirst().orElseThrow(() -> Problem.notFound("no-item"));
        Path copy = Files.createTempFile("oak-basket-rehearsal", null);
        try {
            Files.copy(body, copy, StandardCopyOption.REPLACE_EXISTING);
            FileCheck.check(rehearsed.round(), wanted, name, Files.size(copy));
            gate.accepted(copy, name, rehearsed.round(), wanted, wanted.spec().opens(name));
            if (scanner.scan(copy).verdict() == ScanVerdict.FOUND) {
                throw Problem.refused("malware", name);
            }
        } finally {
            Files.deleteIfExists(copy);
        }
    }
}
