package oakbasket.server.storage;

import com.zaxxer.hikari.HikariDataSource;
import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.Proxy;
import java.sql.Connection;
import java.sql.SQLException;
import org.springframework.jdbc.datasource.DelegatingDataSource;

/** Connections on which whoever does not see some rounds asks only about the others; everybody else gets the plain ones. */
final class SeenRowsDataSource extends DelegatingDataSource {

    private final HikariDataSource all;
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
        return Acting.restricted() ? keeping(plain) : plain;
    }

    private static Connection keeping(Connection plain) {
        return (Connection) Proxy.newProxyInstance(Connection.class.getClassLoader(), new Class<?>[] {Connection.class}, (proxy, method, arguments) -> {
            if (method.getName().startsWith("prepare") && arguments != null && arguments[0] instanceof String sql) {
                Acting.Who who = Acting.who();
                arguments[0] = who != null && who.restricted() ? SeenRows.of(sql, who.account()) : sql;
            } else if (method.getName().equals("createStatement")) {
                throw new IllegalStateException("Only prepared statements keep to what may be seen");
            }
            try {
                return method.invoke(plain, arguments);
            } catch (InvocationTargetException problem) {
                throw problem.getCause();
            }
        });
    }
}
