package oakbasket.server.post;

import java.util.List;
import oakbasket.core.letter.LetterState;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** The post: every letter, where it is, what it says, and stopping it. */
@RestController
class LetterController {

    record Stopped(int letters) {
    }

    private final LetterList list;
    private final Letters letters;

    LetterController(LetterList list, Letters letters) {
        this.list = list;
        this.letters = letters;
    }

    /** Letters, the newest first; {@code before} is the last one seen. */
    @GetMapping("/api/letters")
    LetterList.LetterPage all(@RequestParam(required = false) @Nullable LetterState state, @RequestParam(defaultValue = "") String find, @RequestParam(required = false) @Nullable Long round,
            @RequestParam(required = false) @Nullable Long before) {
        return list.page(state, find, round, before);
    }

    @GetMapping("/api/letters/{id}")
    LetterList.LetterInFull one(@PathVariable long id) {
        return list.inFull(id);
    }

    /** Every letter to a contact, also from before contacts were merged. */
    @GetMapping("/api/contacts/{id}/letters")
    List<LetterList.ListedLetter> toContact(@PathVariable long id) {
        return list.toContact(id);
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

    /** Stops what still waits of the letters that were sent together. */
    @PostMapping("/api/letters/batches/{batch}/stop")
    Stopped stopBatch(@PathVariable long batch) {
        return new Stopped(letters.stopBatch(batch));
    }
}
