package oakbasket.server.storage;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.Mockito.RETURNS_DEEP_STUBS;
import static org.mockito.Mockito.inOrder;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import org.junit.jupiter.api.Test;
import org.mockito.InOrder;
import org.springframework.jdbc.UncategorizedSQLException;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.support.SimpleTransactionStatus;

class TransactionsTest {

    private final PlatformTransactionManager manager = mock(PlatformTransactionManager.class);
    private final JdbcClient jdbc = mock(JdbcClient.class, RETURNS_DEEP_STUBS);
    private final Transactions transactions = new Transactions(manager, jdbc);

    @Test
    void whatIsDurableIsCommittedAndThenFlushed() {
        when(manager.getTransaction(org.mockito.ArgumentMatchers.any())).thenReturn(new SimpleTransactionStatus());
        assertThat(transactions.durably(() -> "done")).isEqualTo("done");
        InOrder order = inOrder(manager, jdbc);
        order.verify(manager).commit(org.mockito.ArgumentMatchers.any());
        order.verify(jdbc).sql("CHECKPOINT SYNC");
    }

    @Test
    void aCheckpointThatFailsIsToldToWhoeverWaitsForItAndTheNextTriesAgain() {
        when(manager.getTransaction(org.mockito.ArgumentMatchers.any())).thenReturn(new SimpleTransactionStatus());
        when(jdbc.sql("CHECKPOINT SYNC").update()).thenThrow(new UncategorizedSQLException("CHECKPOINT SYNC", null, new java.sql.SQLException("IO Exception: No space left on device"))).thenReturn(0);
        assertThatThrownBy(() -> transactions.durably(() -> "not certain")).hasMessageContaining("No space left");
        assertThat(transactions.durably(() -> "certain")).isEqualTo("certain");
    }
}
