package oakbasket.server.storage;

import com.zaxxer.hikari.HikariDataSource;
import javax.sql.DataSource;
import org.springframework.beans.factory.annotation.Qualifier;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.context.annotation.Primary;

/** The H2 database in its file. */
@Configuration(proxyBeanMethods = false)
class DatabaseConfig {

    /** Whoever does not see some rounds reads through this; see {@link SeenRows}. */
    @Bean
    @Primary
    DataSource dataSource(@Qualifier("allRows") HikariDataSource allRows) {
        return new SeenRowsDataSource(allRows);
    }

    @Bean(destroyMethod = "close", defaultCandidate = false)
    @Qualifier("allRows")
    HikariDataSource allRows(DataFolder folder) {
        HikariDataSource source = new HikariDataSource();
        source.setJdbcUrl("jdbc:h2:file:" + folder.database() + ";DB_CLOSE_ON_EXIT=FALSE;LOCK_TIMEOUT=10000;QUERY_CACHE_SIZE=256");
        source.setUsername("sa");
        source.setPassword("");
        source.setMaximumPoolSize(20);
        return source;
    }
}
