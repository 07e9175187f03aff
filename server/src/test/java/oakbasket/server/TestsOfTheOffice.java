package oakbasket.server;

import oakbasket.server.storage.Acting;
import org.junit.jupiter.api.extension.AfterAllCallback;
import org.junit.jupiter.api.extension.BeforeAllCallback;
import org.junit.jupiter.api.extension.BeforeEachCallback;
import org.junit.jupiter.api.extension.ExtensionContext;

/** A test that calls a service itself does so for the office, unless it says otherwise; the application's own threads are not touched by it. */
public final class TestsOfTheOffice implements BeforeAllCallback, BeforeEachCallback, AfterAllCallback {

    @Override
    public void beforeAll(ExtensionContext context) {
        Acting.beginOffice();
    }

    @Override
    public void beforeEach(ExtensionContext context) {
        Acting.beginOffice();
    }

    @Override
    public void afterAll(ExtensionContext context) {
        Acting.end();
    }
}
