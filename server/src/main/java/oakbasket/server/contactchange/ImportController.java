package oakbasket.server.contactchange;

import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import oakbasket.core.contact.ImportPlan;
import oakbasket.core.team.Permission;
import oakbasket.server.account.Account;
import oakbasket.server.security.Needs;
import oakbasket.server.web.BoundedBody;
import oakbasket.server.words.Words;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Importing contacts: reading what came, saying what would become of it, doing it. */
@RestController
@Needs(Permission.CHANGE)
class ImportController {

    /** The largest file that can be imported, in bytes: 20 MiB. */
    private static final int MOST_IMPORT_BYTES = 20 * 1024 * 1024;

    record PreviewImport(Importing.Mapping mapping, ImportPlan.@Nullable Verdict verdict, int from) {
    }

    record ApplyImport(Importing.Mapping mapping, @Nullable String source) {
    }

    private final Importing importing;
    private final Words words;

    ImportController(Importing importing, Words words) {
        this.importing = importing;
        this.words = words;
    }

    /** Reads a table or vCards; the body is the file itself, or what was pasted. Nothing is stored yet. */
    @PostMapping("/api/contacts/import")
    Importing.Staged stage(@RequestParam(defaultValue = "") String charset, @RequestParam(defaultValue = "") String delimiter, HttpServletRequest request,
            @AuthenticationPrincipal Account account) throws IOException {
        return importing.stage(BoundedBody.read(request, MOST_IMPORT_BYTES), charset, delimiter, account.id());
    }

    /** What would become of each line. */
    @PostMapping("/api/contacts/import/{id}/preview")
    Importing.ImportPreview preview(@PathVariable String id, @RequestBody PreviewImport body, @AuthenticationPrincipal Account account) {
        ImportPlan.Verdict verdict = body.verdict();
        return importing.preview(id, body.mapping(), account.id(), verdict == null ? ImportPlan.Verdict.ADDED : verdict, Math.max(0, body.from()));
    }

    /** Does what the last preview said; how far it has come is asked of the import. */
    @PostMapping("/api/contacts/import/{id}/apply")
    @ResponseStatus(HttpStatus.ACCEPTED)
    void apply(@PathVariable String id, @RequestBody ApplyImport body, @AuthenticationPrincipal Account account) {
        String source = body.source();
        importing.apply(id, body.mapping(), source == null || source.isBlank() ? words.of("contact-act.import-source") : source, account.id());
    }

    @GetMapping("/api/contacts/import/{id}")
    Importing.ImportProgress progress(@PathVariable String id, @AuthenticationPrincipal Account account) {
        return importing.progress(id, account.id());
    }
}
