package oakbasket.server.post;

import java.sql.Types;
import java.time.Instant;
import java.util.List;
import oakbasket.core.reminder.PlanChange;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** All SQL of the tables plan_change and plan_change_before. */
@Repository
class PlanChangeTable {

    /** A decision. */
    record Row(long basketId, Instant stepAt, long roundId, PlanChange.Act act, @Nullable Instant toAt) {
        PlanChange change() {
            return new PlanChange(act, toAt);
        }
    }

    private final JdbcClient jdbc;

    PlanChangeTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** Decisions about letters that would go, or do, after an instant; and all that hold one. */
    List<Row> since(Instant instant) {
        return jdbc.sql("SELECT basket_id, step_at, round_id, act, to_at FROM seen_plan_change plan_change WHERE act IN ('MOVE', 'SKIP', 'HOLD') AND (COALESCE(to_at, step_at) > :since OR act = 'HOLD')")
                .param("since", instant).query(Row.class).list();
    }

    /** Keeps what holds now of a letter, for taking back. */
    void remember(long batch, PlanChanges.Step step) {
        jdbc.sql("""
                INSERT INTO plan_change_before (batch, basket_id, step_at, act, to_at)
                SELECT CAST(:batch AS BIGINT), CAST(:basket AS BIGINT), CAST(:step AS TIMESTAMP(9) WITH TIME ZONE), COALESCE(MAX(act), ''), MAX(to_at) FROM seen_plan_change plan_change
                WHERE basket_id = :basket AND step_at = :step""").param("batch", batch).param("basket", step.basketId()).param("step", step.at()).update();
    }

    /** Puts a decision; one that takes another back stays with an empty act, so that it can be taken back itself. */
    void put(long roundId, PlanChanges.Decided decided, long batch, long account, Instant now) {
        PlanChange change = decided.change();
        jdbc.sql("MERGE INTO plan_change (basket_id, step_at, round_id, act, to_at, batch, account_id, decided_at) KEY (basket_id, step_at) VALUES (:basket, :step, :round, :act, :to, :batch, :account, :now)")
                .param("basket", decided.step().basketId()).param("step", decided.step().at()).param("round", roundId).param("act", change == null ? "" : change.act().name())
                .param("to", change == null ? null : change.to(), Types.TIMESTAMP_WITH_TIMEZONE).param("batch", batch).param("account", account).param("now", now).update();
    }

    /** Whether somebody decided otherwise about one of these since. */
    boolean superseded(long batch) {
        return jdbc.sql("""
                SELECT EXISTS (SELECT 1 FROM plan_change_before b WHERE b.batch = :batch
                    AND NOT EXISTS (SELECT 1 FROM seen_plan_change p WHERE p.basket_id = b.basket_id AND p.step_at = b.step_at AND p.batch = :batch))""").param("batch", batch).query(Boolean.class).single();
    }

    /** Puts back what held before; says how many letters that were. */
    int restore(long batch) {
        return jdbc.sql("""
                UPDATE plan_change p SET act = (SELECT b.act FROM plan_change_before b WHERE b.batch = p.batch AND b.basket_id = p.basket_id AND b.step_at = p.step_at),
                    to_at = (SELECT b.to_at FROM plan_change_before b WHERE b.batch = p.batch AND b.basket_id = p.basket_id AND b.step_at = p.step_at), batch = -p.batch WHERE p.batch = :batch""")
                .param("batch", batch).update();
    }
}
