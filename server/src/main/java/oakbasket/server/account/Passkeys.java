package oakbasket.server.account;

import java.net.URI;
import java.nio.ByteBuffer;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Base64;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import oakbasket.core.team.PasskeyTerms;
import oakbasket.server.brand.Brand;
import oakbasket.server.problem.Problem;
import oakbasket.server.security.SecretKeys;
import oakbasket.server.storage.Transactions;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.Authentication;
import org.springframework.security.web.webauthn.api.AuthenticatorAssertionResponse;
import org.springframework.security.web.webauthn.api.AuthenticatorAttestationResponse;
import org.springframework.security.web.webauthn.api.AuthenticatorSelectionCriteria;
import org.springframework.security.web.webauthn.api.Bytes;
import org.springframework.security.web.webauthn.api.PublicKeyCredential;
import org.springframework.security.web.webauthn.api.PublicKeyCredentialCreationOptions;
import org.springframework.security.web.webauthn.api.PublicKeyCredentialRequestOptions;
import org.springframework.security.web.webauthn.api.PublicKeyCredentialRpEntity;
import org.springframework.security.web.webauthn.api.PublicKeyCredentialUserEntity;
import org.springframework.security.web.webauthn.api.ResidentKeyRequirement;
import org.springframework.security.web.webauthn.api.UserVerificationRequirement;
import org.springframework.security.web.webauthn.jackson.WebauthnJacksonModule;
import org.springframework.security.web.webauthn.management.ImmutablePublicKeyCredentialCreationOptionsRequest;
import org.springframework.security.web.webauthn.management.ImmutableRelyingPartyRegistrationRequest;
import org.springframework.security.web.webauthn.management.RelyingPartyAuthenticationRequest;
import org.springframework.security.web.webauthn.management.RelyingPartyPublicKey;
import org.springframework.security.web.webauthn.management.Webauthn4JRelyingPartyOperations;
import org.springframework.stereotype.Service;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/**
 * Passkeys: a device proves by a key of its own that it is one of an account, after it has made sure who holds it (WebAuthn level 2, user verification required). That is two factors at once, so no password and
 * no code are asked beside it. What a device has to sign is sealed and given along instead of being kept, holds for a few minutes, and is taken once.
 */
@Service
public class Passkeys {

    /**
     * What a browser hands to its devices.
     *
     * @param offer to be given back with the answer
     * @param options as WebAuthn has them, in JSON
     */
    record Offer(String offer, String options) {
    }

    private static final int LONGEST_ANSWER = 30_000;
    private static final int CHALLENGE_BYTES = 32;
    private static final int MOST_REMEMBERED = 10_000;
    private static final Duration OFFERED = Duration.ofMinutes(5);
    private static final TypeReference<PublicKeyCredential<AuthenticatorAttestationResponse>> MADE = new TypeReference<>() {
    };
    private static final TypeReference<PublicKeyCredential<AuthenticatorAssertionResponse>> SIGNED = new TypeReference<>() {
    };

    private final PasskeyTable table;
    private final PasskeyRecords records;
    private final AccountService accounts;
    private final SecretKeys keys;
    private final Transactions transactions;
    private final Brand brand;
    private final Clock clock;
    private final JsonMapper json = JsonMapper.builder().addModule(new WebauthnJacksonModule()).build();
    private final Map<Bytes, Instant> taken = new HashMap<>();

    Passkeys(PasskeyTable table, PasskeyRecords records, AccountService accounts, SecretKeys keys, Transactions transactions, Brand brand, Clock clock) {
        this.table = table;
        this.records = records;
        this.accounts = accounts;
        this.keys = keys;
        this.transactions = transactions;
        this.brand = brand;
        this.clock = clock;
    }

    /** The passkeys of an account, the oldest first. */
    List<Passkey> of(Account account) {
        return table.of(account.id());
    }

    /** Takes a passkey away; the device may keep it, and comes in no more. */
    void remove(Account account, long id) {
        if (transactions.own(() -> table.delete(account.id(), id)) != 1) {
            throw Problem.notFound("no-passkey");
        }
    }

    /** What a device is asked to make. @param address where people reach this server, for which alone the passkey will hold */
    Offer offerMaking(Account account, String address) {
        if (of(account).size() >= PasskeyTerms.MOST) {
            throw Problem.conflict("passkeys-most", PasskeyTerms.MOST);
        }
        byte[] challenge = keys.random(CHALLENGE_BYTES);
        return new Offer(sealed(account.id(), challenge), json.writeValueAsString(creation(account, address, challenge)));
    }

    private PublicKeyCredentialCreationOptions creation(Account account, String address, byte[] challenge) {
        Webauthn4JRelyingPartyOperations operations = operations(address);
        operations.setCustomizeCreationOptions(options -> options.challenge(new Bytes(challenge)).timeout(OFFERED)
                .authenticatorSelection(AuthenticatorSelectionCriteria.builder().residentKey(ResidentKeyRequirement.REQUIRED).userVerification(UserVerificationRequirement.REQUIRED).build()));
        return operations.createPublicKeyCredentialCreationOptions(new ImmutablePublicKeyCredentialCreationOptionsRequest(named(account)));
    }

    private static Authentication named(Account account) {
        return UsernamePasswordAuthenticationToken.authenticated(String.valueOf(account.id()), null, List.of());
    }

    /**
     * Keeps what a device made.
     *
     * @throws Problem with status 422 when it is not what was asked for
     */
    void keep(Account account, String address, String offer, String label, String answer) {
        String name = label.strip();
        if (name.isEmpty() || name.length() > PasskeyTerms.LONGEST_LABEL) {
            throw Problem.field("label", name.isEmpty() ? "passkey-label-missing" : "longest", PasskeyTerms.LONGEST_LABEL);
        }
        Bytes challenge = opened(offer, account.id());
        try {
            operations(address).registerCredential(new ImmutableRelyingPartyRegistrationRequest(creation(account, address, challenge.getBytes()), new RelyingPartyPublicKey(json.readValue(bounded(answer), MADE), name)));
        } catch (RuntimeException notWhatWasAskedFor) {
            if (notWhatWasAskedFor instanceof Problem problem) {
                throw problem;
            }
            throw Problem.refused("passkey-refused");
        }
    }

    /** What a device is asked to sign by whoever wants to come in. */
    Offer offerSigning(String address) {
        byte[] challenge = keys.random(CHALLENGE_BYTES);
        return new Offer(sealed(0, challenge), json.writeValueAsString(request(address, challenge)));
    }

    private static PublicKeyCredentialRequestOptions request(String address, byte[] challenge) {
        return PublicKeyCredentialRequestOptions.builder().challenge(new Bytes(challenge)).rpId(URI.create(address).getHost()).timeout(OFFERED).userVerification(UserVerificationRequirement.REQUIRED)
                .allowCredentials(List.of()).build();
    }

    /**
     * Whose device signed.
     *
     * @throws Problem with status 401 when it is nobody's who belongs to the office; why is not said
     */
    Account signedBy(String address, String offer, String answer) {
        Bytes challenge = opened(offer, 0);
        try {
            PublicKeyCredentialUserEntity user = operations(address).authenticate(new RelyingPartyAuthenticationRequest(request(address, challenge.getBytes()), json.readValue(bounded(answer), SIGNED)));
            long account = records.accountOf(user.getId());
            if (accounts.members().stream().noneMatch(member -> member.id() == account && member.endedAt() == null)) {
                throw Problem.of(Problem.Kind.SIGN_IN_NEEDED, "passkey-wrong");
            }
            return accounts.current(account);
        } catch (RuntimeException notTheirs) {
            throw Problem.of(Problem.Kind.SIGN_IN_NEEDED, "passkey-wrong");
        }
    }

    private Webauthn4JRelyingPartyOperations operations(String address) {
        PublicKeyCredentialRpEntity office = PublicKeyCredentialRpEntity.builder().id(URI.create(address).getHost()).name(brand.name()).build();
        return new Webauthn4JRelyingPartyOperations(records.users(), records, office, Set.of(address));
    }

    private static String bounded(String answer) {
        if (answer.length() > LONGEST_ANSWER) {
            throw Problem.unreadable("unreadable");
        }
        return answer;
    }

    private String sealed(long account, byte[] challenge) {
        byte[] offer = ByteBuffer.allocate(2 * Long.BYTES + CHALLENGE_BYTES).putLong(account).putLong(clock.instant().plus(OFFERED).getEpochSecond()).put(challenge).array();
        return Base64.getUrlEncoder().withoutPadding().encodeToString(keys.seal(offer));
    }

    /** What was offered to this account, once. */
    private Bytes opened(String offer, long account) {
        Instant now = clock.instant();
        try {
            ByteBuffer known = ByteBuffer.wrap(keys.open(Base64.getUrlDecoder().decode(offer)));
            byte[] challenge = new byte[CHALLENGE_BYTES];
            boolean holds = known.getLong() == account && now.getEpochSecond() < known.getLong();
            known.get(challenge);
            if (holds && first(new Bytes(challenge), now)) {
                return new Bytes(challenge);
            }
        } catch (RuntimeException notOffered) {
            throw Problem.refused("passkey-over");
        }
        throw Problem.refused("passkey-over");
    }

    private synchronized boolean first(Bytes challenge, Instant now) {
        taken.values().removeIf(until -> until.isBefore(now));
        if (taken.size() >= MOST_REMEMBERED) {
            return false;
        }
        return taken.putIfAbsent(challenge, now.plus(OFFERED)) == null;
    }
}
