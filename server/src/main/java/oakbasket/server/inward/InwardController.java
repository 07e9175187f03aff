package oakbasket.server.inward;

import java.nio.file.Path;
import oakbasket.core.team.Permission;
import oakbasket.server.account.Account;
import oakbasket.server.basket.Baskets;
import oakbasket.server.mail.MailTrouble;
import oakbasket.server.mail.Mailer;
import oakbasket.server.post.MailTags;
import oakbasket.server.security.Hash;
import oakbasket.server.security.Needs;
import oakbasket.server.web.ServedFile;
import oakbasket.server.words.Words;
import org.jspecify.annotations.Nullable;
import org.springframework.core.io.Resource;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** What came by mail. */
@RestController
@Needs(Permission.CHANGE)
class InwardController {

    /**
     * What a look at the servers found.
     *
     * @param letters what is wrong with the one that takes letters; empty when nothing is
     * @param mailbox what is wrong with the mailbox; empty when nothing is, null where none is read
     */
    record ServersChecked(String letters, @Nullable String mailbox) {
    }

    record WasRead(boolean read) {
    }

    /** How papers for a basket can be sent by mail; empty where no mailbox is read. */
    record MailWay(String address, String code) {
    }

    private final MailedMessages messages;
    private final Collecting collecting;
    private final Baskets baskets;
    private final MailTags tags;
    private final Mailer mailer;
    private final Words words;

    InwardController(MailedMessages messages, Collecting collecting, Baskets baskets, MailTags tags, Mailer mailer, Words words) {
        this.messages = messages;
        this.collecting = collecting;
        this.baskets = baskets;
        this.tags = tags;
        this.mailer = mailer;
        this.words = words;
    }

    /** Messages, the newest first; what programs sent only where it is asked for. */
    @GetMapping("/api/inward")
    MailedMessages.MailedPage page(@RequestParam(defaultValue = "false") boolean all, @RequestParam(defaultValue = "") String find, @RequestParam(required = false) @Nullable Long basket,
            @RequestParam(required = false) @Nullable Long before) {
        return messages.page(all, find, basket, before);
    }

    @GetMapping("/api/inward/{id}")
    MailedMessages.MailedMessage one(@PathVariable long id) {
        return messages.one(id);
    }

    /** Says that a message was read, or not. */
    @PutMapping("/api/inward/{id}/read")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void markRead(@PathVariable long id, @RequestBody WasRead read, @AuthenticationPrincipal Account account) {
        messages.read(id, read.read(), account.id());
    }

    /** The message as it came, while it is kept; it quotes the links and marks of letters. */
    @Needs(Permission.CHANGE)
    @GetMapping("/api/inward/{id}/content")
    ResponseEntity<Resource> content(@PathVariable long id) {
        Path path = messages.path(id);
        return ServedFile.saved(path, Hash.of(path.getFileName().toString()), "mail-" + id + ".eml");
    }

    /** Looks into the mailbox now. */
    @PostMapping("/api/inward/look")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void look() {
        collecting.look();
    }

    /** Looks whether the servers for letters and for papers by mail can be reached, and says in words what is wrong. */
    @Needs(Permission.SET_UP)
    @PostMapping("/api/mail-servers/check")
    ServersChecked check() {
        String letters = "";
        try {
            mailer.check();
        } catch (MailTrouble wrong) {
            letters = words.of(wrong.reason());
        }
        return new ServersChecked(letters, collecting.checked());
    }

    /** How papers for a basket can be sent by mail. */
    @GetMapping("/api/baskets/{id}/mail-way")
    MailWay way(@PathVariable long id) {
        baskets.byId(id);
        String address = tags.address(MailTags.Of.BASKET, id);
        return new MailWay(address, address.isEmpty() ? "" : tags.subjectCode(id));
    }
}
