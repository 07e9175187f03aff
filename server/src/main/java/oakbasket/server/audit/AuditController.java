package oakbasket.server.audit;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import oakbasket.core.audit.AuditKind;
import oakbasket.core.audit.AuditRecord;
import oakbasket.core.team.Permission;
import oakbasket.server.Settings;
import oakbasket.server.security.Needs;
import oakbasket.server.web.TableOut;
import oakbasket.server.words.Words;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** The trail of who did, saw or took away what. */
@RestController
@Needs(Permission.ADMINISTER)
class AuditController {

    private static final int LONGEST_WORDS = 100;
    private static final int FAILED = 400;

    /**
     * An entry.
     *
     * @param words what was done, in words
     */
    record AuditLine(long number, Instant at, long account, String who, String caller, AuditKind kind, String operation, String words, String subject, int status) {
    }

    /** Entries, the newest first, and whether there are earlier ones. */
    record AuditPage(List<AuditLine> entries, boolean more) {
    }

    private final AuditTrail trail;
    private final Words words;
    private final Settings settings;

    AuditController(AuditTrail trail, Words words, Settings settings) {
        this.trail = trail;
        this.words = words;
        this.settings = settings;
    }

    /** Entries before a number, the newest first. */
    @GetMapping("/api/audit")
    @Needs(Permission.ADMINISTER)
    AuditPage entries(@RequestParam(defaultValue = "0") long account, @RequestParam(required = false) @Nullable AuditKind kind, @RequestParam(defaultValue = "") String find,
            @RequestParam(required = false) @Nullable LocalDate from, @RequestParam(required = false) @Nullable LocalDate until, @RequestParam(required = false) @Nullable Long before) {
        List<AuditRecord> found = trail.page(wanted(account, kind, find, from, until), before == null ? Long.MAX_VALUE : before);
        return new AuditPage(found.stream().map(this::line).toList(), found.size() == AuditTrail.PAGE);
    }

    /** The same as CSV (RFC 4180), at most the newest 100,000. */
    @GetMapping("/api/audit.csv")
    @Needs(Permission.ADMINISTER)
    ResponseEntity<byte[]> entriesOut(@RequestParam(defaultValue = "0") long account, @RequestParam(required = false) @Nullable AuditKind kind, @RequestParam(defaultValue = "") String find,
            @RequestParam(required = false) @Nullable LocalDate from, @RequestParam(required = false) @Nullable LocalDate until) {
        List<List<String>> rows = new ArrayList<>();
        for (AuditRecord one : trail.out(wanted(account, kind, find, from, until))) {
            rows.add(List.of(Long.toString(one.number()), one.at().toString(), one.who(), one.caller(), words.of("audit.kind." + one.kind()), said(one), one.subject(), one.operation(), Integer.toString(one.status())));
        }
        List<String> headers = Stream.of("number", "at", "who", "from", "kind", "what", "about", "operation", "status").map(column -> words.of("audit.column." + column)).toList();
        return TableOut.download(words.of("audit.name"), "text/csv;charset=UTF-8", TableOut.csv(headers, rows));
    }

    /** Works every hash of the trail out anew. */
    @PostMapping("/api/audit/check")
    AuditTrail.AuditChecked checkTrail() {
        return trail.check();
    }

    private AuditTrail.Wanted wanted(long account, @Nullable AuditKind kind, String find, @Nullable LocalDate from, @Nullable LocalDate until) {
        ZoneId zone = settings.zone();
        return new AuditTrail.Wanted(account, kind, find.strip().substring(0, Math.min(LONGEST_WORDS, find.strip().length())), from == null ? Instant.EPOCH : from.atStartOfDay(zone).toInstant(),
                until == null ? Instant.parse("9999-01-01T00:00:00Z") : until.plusDays(1).atStartOfDay(zone).toInstant());
    }

    private AuditLine line(AuditRecord one) {
        return new AuditLine(one.number(), one.at(), one.account(), one.who(), one.caller(), one.kind(), one.operation(), said(one), one.subject(), one.status());
    }

    /** An operation in words; as it stands in the API description where there are none. What was tried in vain has words of its own where it would sound as if it were done. */
    private String said(AuditRecord one) {
        String key = key(one.operation());
        return (one.status() >= FAILED ? words.find(key + ".failed") : Optional.<String>empty()).or(() -> words.find(key)).orElse(one.operation());
    }

    /** The key of the words of an operation. */
    static String key(String operation) {
        return "audit.did." + operation.replace(" /api/", ".").replace('/', '.').replaceAll("[{}]", "");
    }
}
