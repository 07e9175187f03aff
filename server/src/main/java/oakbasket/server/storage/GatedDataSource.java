package oakbasket.server.storage;

import java.lang.reflect.InvocationHandler;
import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.Method;
import java.lang.reflect.Proxy;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Duration;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import javax.sql.DataSource;
import org.h2.engine.SessionLocal;
import org.h2.jdbc.JdbcConnection;
import org.h2.mvstore.MVStore;
import org.h2.mvstore.MVStoreException;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.datasource.DelegatingDataSource;

/** Connections to H2 whose every change goes through the {@link WriteGate}; H2 itself stores no longer of its own accord, {@link DatabaseKeeper} does. */
final class GatedDataSource extends DelegatingDataSource {

    /** For whoever waits for the disk: after it the database is stored all the same, as whole as H2 stores it, because what was said to be kept must be. */
    private static final Duration DURABLE = Duration.ofSeconds(3);
    private static final Pattern READING = Pattern.compile("\\A\\s*+(?:SELECT|VALUES)\\b(?!.*\\b(?:FOR UPDATE|NEXT VALUE|(?:FINAL|NEW|OLD) TABLE)\\b)", Pattern.CASE_INSENSITIVE | Pattern.DOTALL);
    private static final Pattern STORING = Pattern.compile("\\A\\s*+CHECKPOINT\\b", Pattern.CASE_INSENSITIVE);
    private static final Set<String> ENDS = Set.of("commit", "rollback", "setAutoCommit", "close", "abort");

    private final WriteGate gate;

    GatedDataSource(DataSource h2, WriteGate gate) {
        super(h2);
        this.gate = gate;
    }

    @Override
    public Connection getConnection() throws SQLException {
        Connection plain = gate.inside(super::getConnection);
        storeOf(plain).setAutoCommitDelay(Integer.MAX_VALUE);
        return proxy(Connection.class, (proxy, method, arguments) -> switch (method.getName()) {
            case "prepareStatement" -> statement(PreparedStatement.class, plain, call(plain, method, arguments), (String) arguments[0]);
            case "createStatement" -> statement(Statement.class, plain, call(plain, method, arguments), "");
            default -> ENDS.contains(method.getName()) || method.getName().startsWith("create") ? inside(plain, method, arguments) : call(plain, method, arguments);
        });
    }

    /** What H2 keeps its tables in. */
    static MVStore storeOf(Connection connection) throws SQLException {
        return ((SessionLocal) connection.unwrap(JdbcConnection.class).getSession()).getDatabase().getStore().getMvStore();
    }

    private <S extends Statement> S statement(Class<S> kind, Connection plain, @Nullable Object made, String prepared) {
        Object statement = Objects.requireNonNull(made);
        return proxy(kind, (proxy, method, arguments) -> {
            String name = method.getName();
            if (!name.startsWith("execute")) {
                return name.endsWith("lob") || name.endsWith("Stream") ? inside(statement, method, arguments) : call(statement, method, arguments);
            }
            String sql = arguments != null && arguments[0] instanceof String given ? given : prepared;
            if (STORING.matcher(sql).find()) {
                store(plain);
                return name.equals("executeUpdate") ? (Object) 0 : false;
            }
            return READING.matcher(sql).find() ? call(statement, method, arguments) : inside(statement, method, arguments);
        });
    }

    /** The disk itself is waited for outside of the gate: what is written meanwhile waits for the next time. */
    private void store(Connection plain) throws SQLException {
        WriteGate.Work<Boolean, SQLException> checkpoint = () -> {
            try (Statement statement = plain.createStatement()) {
                return statement.execute("CHECKPOINT");
            }
        };
        if (!gate.shut(DURABLE, checkpoint)) {
            checkpoint.run();
        }
        try {
            storeOf(plain).sync();
        } catch (MVStoreException problem) {
            throw new SQLException(problem);
        }
    }

    private @Nullable Object inside(Object target, Method method, Object[] arguments) throws Throwable {
        return gate.inside(() -> Optional.ofNullable(call(target, method, arguments))).orElse(null);
    }

    private static @Nullable Object call(Object target, Method method, Object[] arguments) throws Throwable {
        try {
            return method.invoke(target, arguments);
        } catch (InvocationTargetException thrown) {
            throw thrown.getCause();
        }
    }

    private static <T> T proxy(Class<T> kind, InvocationHandler handler) {
        return kind.cast(Proxy.newProxyInstance(kind.getClassLoader(), new Class<?>[] {kind}, handler));
    }
}
