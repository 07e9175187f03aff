package oakbasket.core.letter;

import java.util.List;
import java.util.stream.Collectors;

/** What a letter's fields stand for. */
public record LetterFacts(String name, String office, String coordinator, List<Papers> papers) {

    /**
     * One round in a letter.
     *
     * @param note the round's own words to the people asked; empty leaves them out
     * @param deadline the deadline in words, or of what came the receipt; empty leaves it out
     * @param owed what is still owed, or what came, each with what is to be known of it
     * @param link where it is sent to
     */
    public record Papers(String title, String note, String deadline, List<String> owed, String link) {

        String block() {
            StringBuilder block = new StringBuilder(title).append('\n');
            if (!note.isBlank()) {
                block.append(note.strip()).append('\n');
            }
            if (!deadline.isBlank()) {
                block.append(deadline).append('\n');
            }
            owed.forEach(item -> block.append("  - ").append(item).append('\n'));
            return block.append(link).toString();
        }
    }

    public LetterFacts {
        papers = List.copyOf(papers);
    }

    String of(LetterField field) {
        return switch (field) {
            case NAME -> name;
            case OFFICE -> office;
            case COORDINATOR -> coordinator;
            case ROUND -> papers.stream().map(Papers::title).collect(Collectors.joining(", "));
            case PAPERS -> papers.stream().map(Papers::block).collect(Collectors.joining("\n\n"));
        };
    }
}
