package oakbasket.server.rulebreakers.one;

import org.springframework.http.HttpStatus;
import org.springframework.jdbc.core.simple.JdbcClient;

/** A service that knows HTTP, and one that asks the database itself. */
public class HttpService {

    HttpStatus status(JdbcClient jdbc) {
        return jdbc.sql("SELECT 1").query(Integer.class).single() == 1 ? HttpStatus.OK : HttpStatus.GONE;
    }
}
