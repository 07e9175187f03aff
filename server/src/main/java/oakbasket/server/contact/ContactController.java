package oakbasket.server.contact;

import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import oakbasket.core.contact.ContactFields;
import oakbasket.core.contact.ImportPlan;
import oakbasket.server.account.Account;
import oakbasket.server.web.BoundedBody;
import oakbasket.server.web.TableOut;
import oakbasket.server.words.Words;
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

/** Contacts and groups: listing, changing, merging, in and out. */
@RestController
class ContactController {

    private static final int PAGE = 100;
    private static final int SUGGESTED = 8;
    /** The largest file that can be imported, in bytes: 20 MiB. */
    private static final int MOST_IMPORT_BYTES = 20 * 1024 * 1024;
    private static final List<String> COLUMNS = List.of("name", "email", "organisation", "reference", "groups", "language", "zone", "notes");

    record GroupSize(String name, int size) {
    }

    record ContactList(List<Contact> contacts, int total, int from, List<GroupSize> groups, int provisional) {
    }

    /** A contact as typed; what is missing counts as empty. */
    record ContactForm(int version, @Nullable String name, @Nullable String email, @Nullable String organisation, @Nullable String reference, @Nullable String language,
            @Nullable String zone, @Nullable String notes, @Nullable List<String> groups) {

        ContactFields fields() {
            return new ContactFields(text(name), text(email), text(organisation), text(reference), text(language), text(zone), text(notes), groups == null ? List.of() : groups);
        }
    }

    record Regroup(@Nullable String group, List<Long> contacts, boolean in) {
    }

    /** Which contact goes into which; the versions as they were seen. */
    record Merge(long keep, long gone, @Nullable Integer keepVersion, @Nullable Integer goneVersion) {
    }

    record PreviewImport(Importing.Mapping mapping, ImportPlan.@Nullable Verdict verdict, int from) {
    }

    record ApplyImport(Importing.Mapping mapping, @Nullable String source) {
    }

    private final Contacts contacts;
    private final ContactTable table;
    private final Merging merging;
    private final Importing importing;
    private final ContactActs acts;
    private final Words words;

    ContactController(Contacts contacts, ContactTable table, Merging merging, Importing importing, ContactActs acts, Words words) {
        this.contacts = contacts;
        this.table = table;
        this.merging = merging;
        this.importing = importing;
        this.acts = acts;
        this.words = words;
    }

    @GetMapping("/api/contacts")
    ContactList list(@RequestParam(defaultValue = "") String find, @RequestParam(defaultValue = "") String group, @RequestParam(defaultValue = "false") boolean provisional,
            @RequestParam(defaultValue = "0") int from) {
        ContactTable.Wanted wanted = new ContactTable.Wanted(find, group, provisional);
        return new ContactList(table.page(wanted, Math.max(0, from), PAGE), table.count(wanted), from,
                contacts.groupSizes().entrySet().stream().map(one -> new GroupSize(one.getKey(), one.getValue())).toList(), contacts.provisional());
    }

    /** A few contacts and groups for a field in which people are chosen. */
    @GetMapping("/api/contacts/suggest")
    Suggested suggest(@RequestParam(defaultValue = "") String find) {
        String words = find.strip().toLowerCase();
        return new Suggested(contacts.find(find, SUGGESTED), contacts.groupSizes().entrySet().stream().filter(one -> one.getKey().toLowerCase().contains(words)).limit(SUGGESTED)
                .map(one -> new GroupSize(one.getKey(), one.getValue())).toList());
    }

    record Suggested(List<Contact> contacts, List<GroupSize> groups) {
    }

    @GetMapping("/api/groups")
    List<GroupSize> groups() {
        return contacts.groupSizes().entrySet().stream().map(one -> new GroupSize(one.getKey(), one.getValue())).toList();
    }

    @PostMapping("/api/contacts")
    @ResponseStatus(HttpStatus.CREATED)
    Contacts.Saved add(@RequestBody ContactForm form) {
        return contacts.make(form.fields());
    }

    @PutMapping("/api/contacts/{id}")
    Contacts.Saved change(@PathVariable long id, @RequestBody ContactForm form) {
        return contacts.change(id, form.version(), form.fields());
    }

    /** Puts a provisional contact aside, or one that never was in a round. */
    @PostMapping("/api/contacts/{id}/discard")
    Merging.ContactsChanged discard(@PathVariable long id, @AuthenticationPrincipal Account account) {
        return merging.discard(id, account.id());
    }

    @GetMapping("/api/contacts/{id}/alike")
    List<Merging.Alike> alike(@PathVariable long id) {
        return merging.like(id);
    }

    @GetMapping("/api/contacts/twice")
    List<Merging.Pair> twice() {
        return merging.twice();
    }

    @PostMapping("/api/contacts/merge")
    Merging.ContactsChanged merge(@RequestBody Merge body, @AuthenticationPrincipal Account account) {
        return merging.merge(body.keep(), body.keepVersion(), body.gone(), body.goneVersion(), account.id());
    }

    @GetMapping("/api/contact-acts")
    List<ContactActTable.ContactAct> acts() {
        return acts.latest();
    }

    @PostMapping("/api/contact-acts/{id}/undo")
    ContactActs.Undone undo(@PathVariable long id) {
        return acts.undo(id);
    }

    @PostMapping("/api/groups/members")
    Map<String, Integer> regroup(@RequestBody Regroup body) {
        return Map.of("contacts", contacts.regroup(text(body.group()), body.contacts(), body.in()));
    }

    @DeleteMapping("/api/groups/{name}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void removeGroup(@PathVariable String name) {
        contacts.removeGroup(name);
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
        importing.apply(id, body.mapping(), text(body.source()).isBlank() ? words.of("contact-act.import-source") : text(body.source()), account.id());
    }

    @GetMapping("/api/contacts/import/{id}")
    Importing.ImportProgress progress(@PathVariable String id, @AuthenticationPrincipal Account account) {
        return importing.progress(id, account.id());
    }

    @GetMapping("/api/contacts.csv")
    ResponseEntity<byte[]> csv(@RequestParam(defaultValue = "") String group) {
        List<List<String>> rows = chosen(group).stream().map(contact -> List.of(contact.name(), contact.email(), contact.organisation(), contact.reference(),
                String.join("; ", contact.groups()), contact.language(), contact.zone(), contact.notes())).toList();
        return TableOut.download("contacts.csv", "text/csv;charset=UTF-8", TableOut.csv(COLUMNS.stream().map(column -> words.of("contacts." + column)).toList(), rows));
    }

    @GetMapping("/api/contacts.vcf")
    ResponseEntity<byte[]> vcards(@RequestParam(defaultValue = "") String group) {
        return TableOut.download("contacts.vcf", "text/vcard;charset=UTF-8", VcardFile.write(chosen(group)).getBytes(StandardCharsets.UTF_8));
    }

    private List<Contact> chosen(String group) {
        return table.all().stream().filter(contact -> group.isEmpty() || contact.groups().contains(group)).toList();
    }

    private static String text(@Nullable String given) {
        return given == null ? "" : given;
    }
}
