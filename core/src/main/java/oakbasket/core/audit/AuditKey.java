package oakbasket.core.audit;

import java.util.function.UnaryOperator;

/**
 * The key of the chain, as far as the chain needs it. From some entry on each hash is signed with it (HMAC, RFC 2104), so that whoever has no key can make no entry that fits. What stands before that entry cannot be changed either:
 * its last hash is part of what the first signed one covers.
 *
 * @param from the number of the first entry that is signed
 * @param signer signs bytes with the key
 */
public record AuditKey(long from, UnaryOperator<byte[]> signer) {

    /** The hash that stands beside an entry. */
    public byte[] hash(byte[] before, AuditRecord entry) {
        byte[] plain = AuditChain.hash(before, entry);
        return entry.number() >= from ? signer.apply(plain) : plain;
    }
}
