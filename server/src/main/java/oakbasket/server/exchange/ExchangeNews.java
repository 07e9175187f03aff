package oakbasket.server.exchange;

/** The person of an exchange shall be written to. Told within the transaction that wants it. @param account the coordinator who wants it */
public record ExchangeNews(long basketId, long account) {
}
