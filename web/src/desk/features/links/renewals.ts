import { text } from '../../../text/desk'

/** For how long a link is renewed, the usual first; no days mean while the round gathers. */
export const renewals = [...[14, 7, 2, 1].map((days) => ({ days: days as number | null, label: text.links.renewFor(days) })), { days: null, label: text.links.renewGathering }]
