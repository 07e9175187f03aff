package oakbasket.server.web;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.net.URI;
import java.util.stream.Collectors;
import oakbasket.server.problem.Problem;
import oakbasket.server.words.Words;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ProblemDetail;
import org.springframework.stereotype.Component;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Makes problem details of problems, in the words of the message file. */
@Component
public class ProblemWriter {

    /** How many of several things a refusal names. */
    private static final int MOST_NAMED = 5;

    private final Words words;
    private final JsonMapper json;

    ProblemWriter(Words words, JsonMapper json) {
        this.words = words;
        this.json = json;
    }

    /** The problem detail of a problem. */
    public ProblemDetail detail(Problem problem) {
        ProblemDetail detail = detail(ProblemStatus.of(problem), problem.code(), problem.arguments().stream().map(this::said).toArray());
        if (!problem.faults().isEmpty()) {
            detail.setProperty("errors", problem.faults());
        }
        return detail;
    }

    /** The problem detail of what the container or the framework refused with a status of its own. */
    public ProblemDetail detail(HttpStatus status, String code, Object... arguments) {
        ProblemDetail detail = ProblemDetail.forStatus(status);
        detail.setType(URI.create("urn:oak-basket:problem:" + code));
        detail.setTitle(words.of(code + ".title"));
        detail.setDetail(words.of(code + ".detail", arguments));
        return detail;
    }

    private Object said(Object argument) {
        if (argument instanceof Problem.Word word) {
            return words.of(word.code());
        }
        if (argument instanceof Problem.Several several) {
            String named = several.all().stream().limit(MOST_NAMED).map(one -> words.of("refused.named", one.name(), words.of(one.why().code() + ".title"))).collect(Collectors.joining("; "));
            int more = several.all().size() - MOST_NAMED;
            return more > 0 ? named + words.of("refused.more", more) : named;
        }
        return argument;
    }

    /** Writes a problem where no controller is at work, as in a filter. */
    public void write(Problem problem, HttpServletResponse response) throws IOException {
        ProblemDetail detail = detail(problem);
        response.setStatus(detail.getStatus());
        response.setContentType(MediaType.APPLICATION_PROBLEM_JSON_VALUE);
        response.getOutputStream().write(bytes(detail));
    }

    /** The problem detail of a problem as a tree, to be sent as part of something else. */
    public JsonNode tree(Problem problem) {
        return json.valueToTree(detail(problem));
    }

    /** A problem detail as it is sent. */
    public byte[] bytes(ProblemDetail detail) {
        return json.writeValueAsBytes(detail);
    }
}
