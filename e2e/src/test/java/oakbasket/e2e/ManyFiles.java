package oakbasket.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/** A round of one person who sends very many small files: “file0.txt” holding “content of 0”, and so on, one after another to each item. */
final class ManyFiles {

    /** The most files that an item takes. */
    static final int OF_AN_ITEM = 5_000;
    static final String PERSON = "Ada";
    private static final int TOGETHER = 50;

    private ManyFiles() {
    }

    /** Opens the round, sends, and tells its id. All files lie in the folder of the person. */
    static long send(Api api, String base, String title, int files) {
        int items = Math.max(2, (files + OF_AN_ITEM - 1) / OF_AN_ITEM);
        String sheet = """
                {"title":"%s","deadlineDate":"2099-06-30","zone":"UTC","folderPattern":"{round}/{person}","namePattern":"{original}{ext}",
                 "items":[%s],"people":[{"name":"Ada","email":"ada.many@example.org"}]}""".formatted(title,
                IntStream.range(0, items).mapToObj(n -> "{\"title\":\"Anything " + n + "\",\"maxFiles\":" + OF_AN_ITEM + ",\"maxMebibytes\":1,\"kinds\":[]}").collect(Collectors.joining(",")));
        long round = Api.json(api.post("/api/rounds", sheet)).path("head").path("id").asLong();
        assertThat(api.post("/api/rounds/" + round + "/open", "{\"version\":1}").statusCode()).isEqualTo(204);
        String link = api.personalLink(round, PERSON);
        String token = link.substring(link.lastIndexOf('/') + 1);
        Api sender = Api.stranger(base);
        String submission = Api.json(sender.send("POST", "/api/basket/submissions", "{}".getBytes(StandardCharsets.UTF_8), "Oak-Link", token, "Content-Type", "application/json")).path("submission").asString();
        for (int from = 0; from < files; from += TOGETHER) {
            StringBuilder list = new StringBuilder("[");
            ByteArrayOutputStream content = new ByteArrayOutputStream();
            for (int n = from; n < Math.min(files, from + TOGETHER); n++) {
                byte[] one = ("content of " + n).getBytes(StandardCharsets.UTF_8);
                list.append(n == from ? "" : ",").append("{\"item\":").append(1 + n % items).append(",\"name\":\"file").append(n).append(".txt\",\"bytes\":").append(one.length).append(",\"once\":\"").append(n).append("\"}");
                content.writeBytes(one);
            }
            byte[] head = list.append(']').toString().getBytes(StandardCharsets.UTF_8);
            ByteArrayOutputStream body = new ByteArrayOutputStream();
            body.writeBytes(head);
            body.writeBytes(content.toByteArray());
            assertThat(sender.send("POST", "/api/basket/files", body.toByteArray(), "Oak-Link", token, "Oak-Submission", submission, "Oak-Index", "" + head.length, "Content-Type", "application/octet-stream").statusCode())
                    .isEqualTo(200);
        }
        return round;
    }
}
