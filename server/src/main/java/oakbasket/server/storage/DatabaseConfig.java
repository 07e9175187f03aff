package oakbasket.server.storage;

import com.zaxxer.hikari.HikariDataSource;
import javax.sql.DataSource;
import org.h2.jdbcx.JdbcDataSource;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** The H2 database in its file. */
@Configuration(proxyBeanMethods = false)
class DatabaseConfig {

    /** Whoever does not see some rounds reads through it what is left; see {@link SeenRows}. */
    @Bean(destroyMethod = "close")
    DataSource dataSource(DataFolder folder) {
        JdbcDataSource h2 = new JdbcDataSource();
        h2.setURL("jdbc:h2:file:" + folder.database() + ";DB_CLOSE_ON_EXIT=FALSE;LOCK_TIMEOUT=10000;QUERY_CACHE_SIZE=256");
        h2.setUser("sa");
        h2.setPassword("");
        WriteGate gate = new WriteGate();
        GatedDataSource gated = new GatedDataSource(h2, gate);
        HikariDataSource pool = new HikariDataSource();
        pool.setDataSource(gated);
        pool.setMaximumPoolSize(20);
        return new SeenRowsDataSource(pool, new DatabaseKeeper(gated, gate));
    }
}
