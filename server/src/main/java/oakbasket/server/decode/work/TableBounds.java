package oakbasket.server.decode.work;

import oakbasket.server.problem.Problem;

/**
 * Counts the rows and cells of a table before any of them is made, by the rules of RFC 4180: a file of nothing but commas or line ends costs a look at each
 * of its characters and no memory.
 */
final class TableBounds {

    /** So many empty rows there may be for each that is read. */
    static final int MOST_EMPTY_PER_ROW = 5;

    private TableBounds() {
    }

    /**
     * Refuses what is too wide or too long.
     *
     * @param rows how many rows will be read at most; a sample looks no further
     * @throws Problem with status 422
     */
    static void check(String text, char delimiter, int rows, int mostColumns, int mostRows) {
        int cells = 1;
        int row = 0;
        boolean quoted = false;
        boolean begins = true;
        for (int at = 0; at < text.length() && row < rows * (long) MOST_EMPTY_PER_ROW; at++) {
            char c = text.charAt(at);
            if (quoted) {
                quoted = c != '"';
                // A doubled quote mark is one within the cell: it ends and begins again.
                begins = false;
            } else if (c == '"' && (begins || at > 0 && text.charAt(at - 1) == '"')) {
                quoted = true;
            } else if (c == delimiter) {
                begins = true;
                if (++cells > mostColumns) {
                    throw Problem.refused("import-not-a-table");
                }
            } else if (c == '\n' || c == '\r') {
                begins = true;
                cells = 1;
                if (c == '\n' && ++row > (long) mostRows * MOST_EMPTY_PER_ROW) {
                    throw Problem.refused("import-too-long", mostRows);
                }
            } else {
                begins = false;
            }
        }
    }
}
