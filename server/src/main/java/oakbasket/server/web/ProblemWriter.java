package oakbasket.server.web;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.net.URI;
import java.util.Locale;
import org.springframework.context.MessageSource;
import org.springframework.http.MediaType;
import org.springframework.http.ProblemDetail;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;

/** Makes problem details of problems, in the words of the message file. */
@Component
public class ProblemWriter {

    private final MessageSource messages;
    private final JsonMapper json;

    ProblemWriter(MessageSource messages, JsonMapper json) {
        this.messages = messages;
        this.json = json;
    }

    /** The problem detail of a problem. */
    public ProblemDetail detail(Problem problem) {
        ProblemDetail detail = ProblemDetail.forStatus(problem.status());
        detail.setType(URI.create("urn:oak-basket:problem:" + problem.code()));
        detail.setTitle(messages.getMessage(problem.code() + ".title", null, Locale.ENGLISH));
        detail.setDetail(messages.getMessage(problem.code() + ".detail", problem.arguments(), Locale.ENGLISH));
        if (!problem.errors().isEmpty()) {
            detail.setProperty("errors", problem.errors());
        }
        return detail;
    }

    /** Writes a problem where no controller is at work, as in a filter. */
    public void write(Problem problem, HttpServletResponse response) throws IOException {
        response.setStatus(problem.status().value());
        response.setContentType(MediaType.APPLICATION_PROBLEM_JSON_VALUE);
        response.getOutputStream().write(bytes(problem));
    }

    /** A problem detail as it is sent. */
    public byte[] bytes(Problem problem) {
        return json.writeValueAsBytes(detail(problem));
    }
}
