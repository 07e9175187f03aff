package oakbasket.e2e;

import org.junit.jupiter.api.extension.AfterEachCallback;
import org.junit.jupiter.api.extension.BeforeAllCallback;
import org.junit.jupiter.api.extension.ExtensionContext;

/** Gives every class of journeys the same application and browser: started with the first of them, ended after the last test of the run. */
final class Stage implements BeforeAllCallback, AfterEachCallback {

    /** What is kept for the whole run. Letters go after seconds, so that nobody waits a minute for them. */
    private record Kept(PackagedApp app, Browser browser, Api api) implements AutoCloseable {

        static Kept started() {
            PackagedApp app = new PackagedApp(PackagedApp.freshFolder(), "--oakbasket.demo=true", "--oakbasket.office=Fennbrook Catchment Partnership",
                    "--oakbasket.letter-hold=PT4S", "--oakbasket.post-every=PT0.3S");
            return new Kept(app, new Browser(), new Api(app.url()));
        }

        @Override
        public void close() {
            browser.close();
            app.close();
        }
    }

    @Override
    public void beforeAll(ExtensionContext context) {
        Kept kept = context.getRoot().getStore(ExtensionContext.Namespace.create(Stage.class)).getOrComputeIfAbsent(Kept.class, key -> Kept.started(), Kept.class);
        Journey.app = kept.app();
        Journey.browser = kept.browser();
        Journey.api = kept.api();
    }

    @Override
    public void afterEach(ExtensionContext context) {
        Journey.browser.closePages();
        Journey.browser.assertNoComplaints();
    }
}
