package oakbasket.server.contact;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import oakbasket.core.contact.ContactFields;
import oakbasket.core.team.Permission;
import oakbasket.server.security.Needs;
import oakbasket.server.security.Noted;
import oakbasket.server.web.TableOut;
import oakbasket.server.words.Words;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Contacts and groups: listing, changing, taking away. */
@RestController
@Needs(Permission.CHANGE)
class ContactController {

    private static final int PAGE = 100;
    private static final int SUGGESTED = 8;
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

    private final Contacts contacts;
    private final Words words;

    ContactController(Contacts contacts, Words words) {
        this.contacts = contacts;
        this.words = words;
    }

    @GetMapping("/api/contacts")
    ContactList list(@RequestParam(defaultValue = "") String find, @RequestParam(defaultValue = "") String group, @RequestParam(defaultValue = "false") boolean provisional,
            @RequestParam(defaultValue = "0") int from) {
        return new ContactList(contacts.page(find, group, provisional, Math.max(0, from), PAGE), contacts.count(find, group, provisional), from,
                contacts.groupSizes().entrySet().stream().map(one -> new GroupSize(one.getKey(), one.getValue())).toList(), contacts.provisional());
    }

    /** A few contacts and groups for a field in which people are chosen. */
    @GetMapping("/api/contacts/suggest")
    Suggested suggest(@RequestParam(defaultValue = "") String find) {
        String words = find.strip().toLowerCase(Locale.ROOT);
        return new Suggested(contacts.find(find, SUGGESTED), contacts.groupSizes().entrySet().stream().filter(one -> one.getKey().toLowerCase(Locale.ROOT).contains(words)).limit(SUGGESTED)
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
        Contacts.Saved made = contacts.make(form.fields());
        Noted.about(form.fields().name());
        return made;
    }

    @PutMapping("/api/contacts/{id}")
    Contacts.Saved change(@PathVariable long id, @RequestBody ContactForm form) {
        return contacts.change(id, form.version(), form.fields());
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
        return contacts.all().stream().filter(contact -> group.isEmpty() || contact.groups().contains(group)).toList();
    }

    private static String text(@Nullable String given) {
        return given == null ? "" : given;
    }
}
