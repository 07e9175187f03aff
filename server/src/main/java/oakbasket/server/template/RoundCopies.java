package oakbasket.server.template;

import java.util.List;
import oakbasket.core.compose.RoundSheet;
import oakbasket.core.round.RoundState;
import oakbasket.server.basket.Baskets;
import oakbasket.server.round.Drafts;
import oakbasket.server.round.Rounds;
import oakbasket.server.sharing.Sharing;
import org.springframework.stereotype.Service;

/** Makes rounds of rounds. */
@Service
public class RoundCopies {

    private final Rounds rounds;
    private final Drafts drafts;
    private final Baskets baskets;
    private final Sharing sharing;

    RoundCopies(Rounds rounds, Drafts drafts, Baskets baskets, Sharing sharing) {
        this.sharing = sharing;
        this.rounds = rounds;
        this.drafts = drafts;
        this.baskets = baskets;
    }

    /** Begins a draft with everything of another round but its dates and passcode; of a round that gathers or gathered, with its people as they are now. It is seen by those who see that one. */
    Drafts.Draft copy(long id, long account) {
        return drafts.begin(sheetForAnother(id), account, made -> sharing.inherit(id, made, account));
    }

    /** A round's sheet made fit for another round. */
    public RoundSheet sheetForAnother(long id) {
        Rounds.Head head = rounds.head(id);
        RoundSheet sheet = rounds.sheet(id);
        if (head.state() != RoundState.DRAFT && sheet.groups().isEmpty()) {
            sheet = sheet.asking(baskets.asked(id).stream().map(one -> new RoundSheet.SheetPerson(one.name(), one.email())).toList(), List.of());
        }
        return sheet.forAnother(head.title(), "");
    }
}
