package oakbasket.server.space;

import java.util.List;
import oakbasket.core.quota.Room;
import oakbasket.core.quota.RoomOf;
import oakbasket.core.team.Permission;
import oakbasket.server.problem.Problem;
import oakbasket.server.security.Needs;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** How much room is taken up, and how much may be. */
@RestController
@Needs(Permission.ADMINISTER)
class SpaceController {

    private static final int MEBIBYTE_BITS = 20;

    /** The room of one of them. @param most in bytes; null for as much as there is */
    record SpaceLine(RoomOf of, long id, String name, long used, @Nullable Long most, int percent, boolean warns) {
    }

    /** @param mostMebibytes null for as much as there is */
    record SpaceForm(@Nullable Long mostMebibytes) {
    }

    private final Spaces spaces;

    SpaceController(Spaces spaces) {
        this.spaces = spaces;
    }

    /** The room that everything takes up now: the office, then users, then rounds. */
    @Needs(Permission.ADMINISTER)
    @GetMapping("/api/space")
    List<SpaceLine> space() {
        return spaces.all().stream().map(one -> new SpaceLine(one.of(), one.id(), one.name(), one.room().usedBytes(), one.room().mostBytes(), one.room().percent(), one.room().warns())).toList();
    }

    /** Sets how much room something may take up; what lies there already stays. The office has number 0. */
    @PutMapping("/api/space/{of}/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void limitSpace(@PathVariable RoomOf of, @PathVariable long id, @RequestBody SpaceForm form) {
        Long most = form.mostMebibytes();
        if (most != null && (most < 0 || most > Room.MOST_MEBIBYTES)) {
            throw Problem.field("mostMebibytes", "space-most", Room.MOST_MEBIBYTES);
        }
        spaces.set(of, id, most == null ? null : most << MEBIBYTE_BITS);
    }
}
