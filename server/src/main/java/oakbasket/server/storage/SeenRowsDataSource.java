package oakbasket.server.storage;

import com.zaxxer.hikari.HikariDataSource;
import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.Proxy;
import java.sql.Connection;
import java.sql.SQLException;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.jdbc.datasource.DelegatingDataSource;

/** Connections on which everybody asks only about what they may see, and whoever was not named about nothing that not all may see; see {@link SeenRows}. */
final class SeenRowsDataSource extends DelegatingDataSource {

    private static final int MOST_KNOWN = 2_000;

    private final HikariDataSource all;
    /** As they are where everything may be seen, so that they are looked through once. */
    private final Map<String, String> known = new ConcurrentHashMap<>();
    private final DatabaseKeeper keeper;

    SeenRowsDataSource(HikariDataSource all, DatabaseKeeper keeper) {
        super(all);
        this.all = all;
        this.keeper = keeper;
    }

    /** Closes every connection. */
    public void close() {
        keeper.close();
        all.close();
    }

    @Override
    public Connection getConnection() throws SQLException {
        Connection plain = super.getConnection();
        return (Connection) Proxy.newProxyInstance(Connection.class.getClassLoader(), new Class<?>[] {Connection.class}, (proxy, method, arguments) -> {
            if (method.getName().startsWith("prepare") && arguments != null && arguments[0] instanceof String sql) {
                arguments[0] = seen(sql);
            } else if (method.getName().equals("createStatement") && !Acting.everything()) {
                throw new IllegalStateException("Only prepared statements keep to what may be seen");
            }
            try {
                return method.invoke(plain, arguments);
            } catch (InvocationTargetException problem) {
                throw problem.getCause();
            }
        });
    }

    private String seen(String sql) {
        if (Acting.everything()) {
            if (known.size() > MOST_KNOWN) {
                known.clear();
            }
            return known.computeIfAbsent(sql, SeenRows::everything);
        }
        Acting.Who who = Acting.who();
        if (who != null) {
            return SeenRows.of(sql, who.account());
        }
        if (SeenRows.touched(sql)) {
            throw new IllegalStateException("Nobody was named for whom this is done: " + sql);
        }
        return sql;
    }
}
