package oakbasket.server.person;

import oakbasket.core.team.Permission;
import oakbasket.server.security.Needs;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;

/** One contact's page. */
@RestController
@Needs(Permission.CHANGE)
class PersonController {

    private final PersonPages pages;

    PersonController(PersonPages pages) {
        this.pages = pages;
    }

    @GetMapping("/api/contacts/{id}")
    PersonPages.PersonPage person(@PathVariable long id) {
        return pages.of(id);
    }
}
