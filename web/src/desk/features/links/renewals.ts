import { text } from '../../../text/desk'

/** How many days are offered for a link's life, the usual first (common practice, no source). */
export const OFFERED_DAYS = [14, 7, 2, 1]

/** For how long a link is renewed, the usual first; no days mean while the round gathers. */
export const renewals = [...OFFERED_DAYS.map((days) => ({ days: days as number | null, label: text.links.renewFor(days) })), { days: null, label: text.links.renewGathering }]
