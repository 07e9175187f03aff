package oakbasket.server.compose;

import java.util.List;
import oakbasket.core.identity.PeopleLines;
import oakbasket.core.team.Permission;
import oakbasket.server.problem.Problem;
import oakbasket.server.security.Needs;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** Reads what is typed or pasted while a sheet is composed; stores nothing. */
@RestController
@Needs(Permission.CHANGE)
class ComposeController {

    record Lines(@Nullable String text) {
    }

    record ReadPerson(String name, String email) {
    }

    record ReadPeople(List<ReadPerson> people, List<PeopleLines.Refused> refused, int merged) {
    }

    private static final int LONGEST_PASTE = 4_000_000;

    /** Reads typed or pasted lines; stores nothing. */
    @PostMapping("/api/people/read")
    ReadPeople people(@RequestBody Lines lines) {
        String text = lines.text() == null ? "" : lines.text();
        if (text.length() > LONGEST_PASTE) {
            throw Problem.refused("paste-too-long", LONGEST_PASTE);
        }
        PeopleLines read = PeopleLines.parse(text);
        return new ReadPeople(read.people().stream().map(p -> new ReadPerson(p.name(), p.address().text())).toList(), read.refused(), read.merged());
    }
}
