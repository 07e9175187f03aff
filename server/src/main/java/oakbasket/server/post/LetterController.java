package oakbasket.server.post;

import java.util.List;
import oakbasket.core.letter.LetterState;
import oakbasket.core.team.Permission;
import oakbasket.server.security.Needs;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** The post: every letter, where it is, what it says, and stopping it. */
@RestController
@Needs(Permission.CHANGE)
class LetterController {

    record Stopped(int letters) {
    }

    /** Hours as {@code HH:mm}; both empty where the office's hold. */
    record TypedQuiet(@Nullable String quietFrom, @Nullable String quietTo) {
    }

    private final QuietPeople quiet;
    private final LetterList list;
    private final Letters letters;

    LetterController(QuietPeople quiet, LetterList list, Letters letters) {
        this.quiet = quiet;
        this.list = list;
        this.letters = letters;
    }

    /** Letters, the newest first; {@code before} is the last one seen. */
    @GetMapping("/api/letters")
    LetterList.LetterPage all(@RequestParam(required = false) @Nullable List<LetterState> state, @RequestParam(defaultValue = "") String find, @RequestParam(required = false) @Nullable Long round,
            @RequestParam(required = false) @Nullable Long before) {
        return list.page(state == null ? List.of() : state, find, round, before);
    }

    @Needs(Permission.CHANGE)
    @GetMapping("/api/letters/{id}")
    LetterList.LetterInFull one(@PathVariable long id) {
        return list.inFull(id);
    }

    /** Every letter to a contact, also from before contacts were merged. */
    @GetMapping("/api/contacts/{id}/letters")
    List<LetterList.ListedLetter> toContact(@PathVariable long id) {
        return list.toContact(id);
    }

    /** Every letter about a parcel, the newest first. */
    @GetMapping("/api/parcels/{id}/letters")
    List<LetterList.ListedLetter> aboutParcel(@PathVariable long id) {
        return list.ofParcel(id);
    }

    /** The hours in which a person is not written to; empty where the office's hold. */
    @GetMapping("/api/contacts/{id}/quiet-hours")
    TypedQuiet quiet(@PathVariable long id) {
        QuietOfPerson row = quiet.of(id);
        return new TypedQuiet(row.quietFrom(), row.quietTo());
    }

    @PutMapping("/api/contacts/{id}/quiet-hours")
    TypedQuiet setQuiet(@PathVariable long id, @RequestBody TypedQuiet typed) {
        QuietOfPerson row = quiet.set(id, typed.quietFrom() == null ? "" : typed.quietFrom().strip(), typed.quietTo() == null ? "" : typed.quietTo().strip());
        return new TypedQuiet(row.quietFrom(), row.quietTo());
    }

    @PostMapping("/api/letters/{id}/stop")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void stop(@PathVariable long id) {
        letters.stop(id);
    }

    /** Sends a letter that failed or was stopped after all. */
    @PostMapping("/api/letters/{id}/again")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void again(@PathVariable long id) {
        letters.sendAgain(id);
    }

    /** Says that a letter arrived of which nobody knew. */
    @PostMapping("/api/letters/{id}/arrived")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void arrived(@PathVariable long id) {
        letters.arrived(id);
    }

    /** The people of a round whom the last letter did not reach. */
    @GetMapping("/api/rounds/{id}/unreachable")
    List<Unreachable> unreachable(@PathVariable long id) {
        return letters.unreachable(id);
    }

    /** Stops what still waits of the letters that were sent together. */
    @PostMapping("/api/letters/batches/{batch}/stop")
    Stopped stopBatch(@PathVariable long batch) {
        return new Stopped(letters.stopBatch(batch));
    }
}
