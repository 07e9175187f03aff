package oakbasket.server.journal;

import java.util.List;
import java.util.stream.Collectors;
import oakbasket.core.filing.Condition;
import oakbasket.core.filing.FilingRule;
import oakbasket.core.filing.RuleRef;
import oakbasket.core.filing.Subject;
import oakbasket.server.words.Words;
import org.springframework.stereotype.Component;

/** Says why something was done to a file: by which rule and since what held. */
@Component
public class WhyWords {

    private final Words words;

    WhyWords(Words words) {
        this.words = words;
    }

    /** The reason as a sentence. */
    public String of(Why why) {
        RuleRef rule = why.rule();
        if (rule == null) {
            return why.note() == null ? words.of("why." + why.code()) : words.of("why.noted", words.of("why." + why.code()), why.note());
        }
        String named = rule.name().isEmpty() ? "" : words.of("why.named", rule.name());
        String by = words.of("why." + why.code() + "." + rule.level().name(), rule.number(), named);
        List<Condition> because = why.because() == null ? List.of() : why.because();
        if (because.isEmpty()) {
            return words.of("why.always", by);
        }
        return words.of("why.because", by, because.stream().map(this::of).collect(Collectors.joining(words.of(why.join() == FilingRule.Join.ANY ? "why.or" : "why.and"))));
    }

    /** A condition as a clause. */
    public String of(Condition condition) {
        String value = condition.subject().choices().isEmpty() ? condition.value() : words.of("choice." + condition.subject() + "." + condition.value());
        return words.of("condition." + condition.test().name(), words.of("subject." + condition.subject().name()), condition.subject() == Subject.SIZE ? words.of("condition.kib", value) : value);
    }
}
