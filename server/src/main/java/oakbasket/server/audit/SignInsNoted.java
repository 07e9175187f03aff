package oakbasket.server.audit;

import java.util.Map;
import oakbasket.core.audit.AuditKind;
import oakbasket.server.account.SignIns;
import oakbasket.server.account.TakenByProgram;
import oakbasket.server.storage.Known;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/** Notes who signed in and out, who was kept from it, and what programs took away. */
@Component
class SignInsNoted {

    private static final int DONE = 200;
    private static final int KEPT_OUT = 401;
    private static final Map<SignIns.What, String> OPERATIONS = Map.of(SignIns.What.IN, "POST /api/session", SignIns.What.REFUSED, "POST /api/session", SignIns.What.OUT, "DELETE /api/session", SignIns.What.FIRST, "POST /api/first-account");

    private final AuditTrail trail;

    SignInsNoted(AuditTrail trail) {
        this.trail = trail;
    }

    @EventListener
    void note(TakenByProgram taken) {
        boolean looked = taken.path().isEmpty();
        String operation = looked ? "PROPFIND /dav" : "GET /dav";
        AuditKind kind = looked ? AuditKind.SAW : AuditKind.TOOK;
        if (trail.again(taken.account().id(), kind, operation, taken.path())) {
            return;
        }
        trail.write(new AuditTrail.Somebody(taken.account().id(), taken.account().name(), taken.caller()), kind, operation, taken.path(), DONE);
    }

    @EventListener
    void note(SignIns signed) {
        boolean refused = signed.what() == SignIns.What.REFUSED;
        trail.write(new AuditTrail.Somebody(signed.account(), signed.who(), signed.caller()), AuditKind.SIGNED, Known.in(OPERATIONS, signed.what()), "", refused ? KEPT_OUT : DONE);
    }
}
