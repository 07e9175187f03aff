package oakbasket.server.rulebreakers.one;

/** Calls a controller, as if it were a service. */
class ControllerCaller {

    int rows(TableController controller) {
        return controller.rows(new OpenTable());
    }
}
