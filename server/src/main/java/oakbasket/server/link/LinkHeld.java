package oakbasket.server.link;

import java.time.Instant;
import oakbasket.core.link.LinkTerms;
import org.jspecify.annotations.Nullable;

/**
 * What a coordinator can change about a link, as it is kept to be undone.
 *
 * @param tokenSealed the address it had, where that was changed, in Base64; null where it was not
 */
record LinkHeld(Instant setAt, @Nullable Instant beginsAt, @Nullable Instant endsAt, @Nullable Instant pausedAt, @Nullable Instant withdrawnAt, @Nullable Integer useLimit,
        @Nullable Integer fileLimit, @Nullable Long fileBytes, @Nullable Long totalBytes, String name, @Nullable String passcodeHash, @Nullable String tokenSealed) {

    static LinkHeld of(LinkTerms terms, String name, @Nullable String passcodeHash) {
        return new LinkHeld(terms.window().setAt(), terms.window().beginsAt(), terms.window().endsAt(), terms.pausedAt(), terms.withdrawnAt(), terms.limits().uses(),
                terms.limits().files(), terms.limits().fileBytes(), terms.limits().totalBytes(), name, passcodeHash, null);
    }

    static LinkHeld of(Link link) {
        return of(link.terms(), link.name(), link.passcodeHash());
    }

    LinkHeld withToken(String sealed) {
        return new LinkHeld(setAt, beginsAt, endsAt, pausedAt, withdrawnAt, useLimit, fileLimit, fileBytes, totalBytes, name, passcodeHash, sealed);
    }
}
