package oakbasket.core.audit;

import java.time.Instant;

/**
 * What an entry of the trail says.
 *
 * @param number from 1 on, without gaps
 * @param account whose account it was; 0 where it was nobody's
 * @param who their name at that time, or what is known of whoever it was
 * @param caller the address they came from
 * @param operation what was asked of the server, as in the API description
 * @param subject what it was about, in words at that time; may be empty
 * @param status how the server answered (RFC 9110, 15)
 */
public record AuditRecord(long number, Instant at, long account, String who, String caller, AuditKind kind, String operation, String subject, int status) {
}
