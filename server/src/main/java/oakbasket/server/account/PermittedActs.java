package oakbasket.server.account;

import java.util.List;
import java.util.function.Function;
import oakbasket.core.team.Permission;
import oakbasket.core.team.Role;

/** What somebody of a role may do, as the office has settled it; whoever knows that gives it. */
public record PermittedActs(Function<Role, List<Permission>> by) {

    List<Permission> of(Role role) {
        return by.apply(role);
    }
}
