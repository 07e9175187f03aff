package oakbasket.server.audit;

import java.util.List;
import java.util.Map;

/** What an operation is about, by its path in the API description: the first thing in braces, and what its number counts. */
final class AuditSubject {

    /** What a number in a path counts. */
    enum Of { ROUND, BASKET, FILE, CONTACT, PARCEL, LINK, LETTER, MEMBER, INVITATION, OTHER }

    /** By the beginning of the path; the first that fits counts. */
    private static final List<Map.Entry<String, Of>> BY_PATH = List.of(Map.entry("/api/rounds/{id}", Of.ROUND), Map.entry("/api/baskets/{id}", Of.BASKET), Map.entry("/api/files/{id}", Of.FILE),
            Map.entry("/api/folders/files/{id}", Of.FILE), Map.entry("/api/removals/{file}", Of.FILE), Map.entry("/api/glances/{file}", Of.FILE), Map.entry("/api/contacts/{id}", Of.CONTACT),
            Map.entry("/api/parcels/{id}", Of.PARCEL), Map.entry("/api/exchanges/of-basket/{basket}", Of.BASKET), Map.entry("/api/exchanges/{id}", Of.PARCEL), Map.entry("/api/links/folders/{round}", Of.ROUND), Map.entry("/api/links/{id}", Of.LINK), Map.entry("/api/handouts/{link}", Of.LINK), Map.entry("/api/letters/{id}", Of.LETTER),
            Map.entry("/api/team/invitations/{id}", Of.INVITATION), Map.entry("/api/team/{id}", Of.MEMBER), Map.entry("/api/sharing/{round}", Of.ROUND), Map.entry("/api/rules/{round}", Of.ROUND),
            Map.entry("/api/frames/{round}", Of.ROUND), Map.entry("/api/retention/{round}", Of.ROUND), Map.entry("/api/sets/{round}", Of.ROUND));

    private AuditSubject() {
    }

    static Of of(String path) {
        return BY_PATH.stream().filter(one -> path.startsWith(one.getKey())).map(Map.Entry::getValue).findFirst().orElse(Of.OTHER);
    }
}
