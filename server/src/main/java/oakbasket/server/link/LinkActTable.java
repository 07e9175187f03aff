package oakbasket.server.link;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import oakbasket.server.storage.Known;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.jdbc.support.KeyHolder;
import org.springframework.stereotype.Repository;

/** All SQL of the tables link_act and link_act_link. */
@Repository
class LinkActTable {

    private static final String SELECT = """
            SELECT a.id, a.kind, a.said, a.account_id, a.at, a.undone_at, (SELECT COUNT(*) FROM link_act_link n WHERE n.act_id = a.id) AS links FROM seen_link_act a
            """;

    /** One link of an act, with what held before. */
    record Done(long linkId, int versionAfter, String held) {
    }

    private final JdbcClient jdbc;

    LinkActTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    long insert(String kind, String said, long account, Instant at) {
        KeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("INSERT INTO link_act (kind, said, account_id, at) VALUES (:kind, :said, :account, :at)").param("kind", kind).param("said", said).param("account", account)
                .param("at", at).update(key, "id");
        return Known.id(key);
    }

    void insert(long act, Done done) {
        jdbc.sql("INSERT INTO link_act_link (act_id, link_id, version_after, held) VALUES (?, ?, ?, ?)").params(act, done.linkId(), done.versionAfter(), done.held()).update();
    }

    Optional<LinkAct> byId(long id) {
        return jdbc.sql(SELECT + "WHERE a.id = :id").param("id", id).query(LinkAct.class).optional();
    }

    List<Done> done(long act) {
        return jdbc.sql("SELECT link_id, version_after, held FROM link_act_link WHERE act_id = :act ORDER BY link_id").param("act", act).query(Done.class).list();
    }

    /** How many rows changed: 0 when it was undone before. */
    int undo(long id, Instant at) {
        return jdbc.sql("UPDATE link_act SET undone_at = :at WHERE id = :id AND undone_at IS NULL").param("at", at).param("id", id).update();
    }

    List<LinkAct> ofLink(long linkId) {
        return jdbc.sql(SELECT + "WHERE a.id IN (SELECT act_id FROM link_act_link WHERE link_id = :link) ORDER BY a.id").param("link", linkId).query(LinkAct.class).list();
    }

    List<LinkAct> ofBasket(long basketId) {
        return jdbc.sql(SELECT + "WHERE a.id IN (SELECT n.act_id FROM link_act_link n JOIN seen_link l ON l.id = n.link_id WHERE l.basket_id = :basket) ORDER BY a.id")
                .param("basket", basketId).query(LinkAct.class).list();
    }

    /** What was done to links of a round, the newest first; counted are those of the round. */
    List<LinkAct> ofRound(long roundId, int most) {
        return jdbc.sql("""
                SELECT a.id, a.kind, a.said, a.account_id, a.at, a.undone_at, COUNT(*) AS links FROM seen_link_act a JOIN link_act_link n ON n.act_id = a.id JOIN seen_link l ON l.id = n.link_id
                WHERE l.round_id = :round GROUP BY a.id, a.kind, a.said, a.account_id, a.at, a.undone_at ORDER BY a.id DESC FETCH FIRST :most ROWS ONLY""")
                .param("round", roundId).param("most", most).query(LinkAct.class).list();
    }
}
