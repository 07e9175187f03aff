package oakbasket.server.rulebreakers.one;

/** A controller that reaches for a table. */
class TableController {

    int rows(OpenTable table) {
        return table.rows();
    }
}
