package oakbasket.server.storage;

import com.zaxxer.hikari.HikariDataSource;
import javax.sql.DataSource;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** The H2 database in its file. */
@Configuration(proxyBeanMethods = false)
class DatabaseConfig {

    /** Whoever does not see some rounds reads through it what is left; see {@link SeenRows}. */
    @Bean(destroyMethod = "close")
    DataSource dataSource(DataFolder folder) {
        HikariDataSource source = new HikariDataSource();
        source.setJdbcUrl("jdbc:h2:file:" + folder.database() + ";DB_CLOSE_ON_EXIT=FALSE;LOCK_TIMEOUT=10000;QUERY_CACHE_SIZE=256");
        source.setUsername("sa");
        source.setPassword("");
        source.setMaximumPoolSize(20);
        return new SeenRowsDataSource(source);
    }
}
