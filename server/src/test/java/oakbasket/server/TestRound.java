package oakbasket.server;

import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.concurrent.atomic.AtomicInteger;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** Composes a round over HTTP, and sends to it as a sender would. */
final class TestRound {

    private static final AtomicInteger COUNT = new AtomicInteger();

    final Http desk;
    final ObjectNode sheet = Http.JSON.createObjectNode();
    long id;

    /** A round with one required PDF item and two people, titled uniquely. */
    TestRound() {
        this(Http.desk());
    }

    /** The same in another application. */
    TestRound(Http desk) {
        this.desk = desk;
        sheet.put("title", "Round " + COUNT.incrementAndGet()).put("note", "").put("deadlineDate", "2026-06-30").put("deadlineTime", "17:00")
                .put("zone", "Europe/London").put("folderPattern", "{round}/{person}").put("namePattern", "{person} - {item}{ext}");
        item("Consent", true, 1, 2, 1, "PDF");
        person("Ada Brook", "ada@example.org").person("Ben Reed", "ben@example.org");
    }

    TestRound item(String title, boolean required, int min, int max, int mebibytes, String... kinds) {
        ObjectNode item = sheet.withArray("items").addObject().put("title", title).put("help", "").put("required", required).put("minFiles", min)
                .put("maxFiles", max).put("maxMebibytes", mebibytes);
        ArrayNode list = item.putArray("kinds");
        for (String kind : kinds) {
            list.add(kind);
        }
        return this;
    }

    TestRound person(String name, String email) {
        sheet.withArray("people").addObject().put("name", name).put("email", email);
        return this;
    }

    /** Other people instead, whom no other test knows. */
    TestRound onlyPeople(String... names) {
        sheet.putArray("people");
        for (String name : names) {
            person(name, name.toLowerCase().replace(' ', '.') + "." + COUNT.incrementAndGet() + "@example.org");
        }
        return this;
    }

    /** The round's letters, as JSON of a sheet. */
    TestRound withLetters(String letters) {
        sheet.set("letters", Http.JSON.readTree(letters));
        return this;
    }

    TestRound withOpenLink(String passcode) {
        sheet.put("openLink", true).put("passcode", passcode);
        return this;
    }

    String title() {
        return sheet.path("title").asString();
    }

    Http.Answer begin() {
        Http.Answer draft = desk.post("/api/rounds", sheet.toString());
        id = draft.json().path("head").path("id").asLong();
        return draft;
    }

    Http.Answer tryOpen() {
        Http.Answer draft = begin();
        return desk.post("/api/rounds/" + id + "/open", "{\"version\":" + draft.json().path("head").path("version").asInt() + "}");
    }

    TestRound open() {
        Http.Answer opened = tryOpen();
        if (opened.status() != 204) {
            throw new AssertionError(opened.text());
        }
        return this;
    }

    JsonNode board() {
        return desk.get("/api/rounds/" + id + "/board").json();
    }

    JsonNode row(String name) {
        for (JsonNode row : board().path("rows")) {
            if (row.path("name").asString().equals(name)) {
                return row;
            }
        }
        throw new AssertionError("No row of " + name + " in " + board());
    }

    /** Does something to one person's basket; {@code more} is further JSON, such as {@code "on":true}. */
    Http.Answer act(String kind, String name, String more) {
        JsonNode row = row(name);
        return desk.post("/api/rounds/" + id + "/acts", "{\"kind\":\"" + kind + "\",\"baskets\":[{\"id\":" + row.path("id") + ",\"version\":" + row.path("version") + "}]," + more + "}");
    }

    /** The standing of an item of a person, by the item's place from 0. */
    String standing(String name, int item) {
        return ReadTile.of(row(name), item).standing();
    }

    JsonNode panel(String name) {
        return desk.get("/api/baskets/" + row(name).path("id").asLong()).json();
    }

    Sender personal(String name) {
        return new Sender(token(desk.get("/api/baskets/" + row(name).path("id").asLong() + "/link")), desk.another());
    }

    Sender openLink() {
        return new Sender(token(desk.get("/api/rounds/" + id + "/link")), desk.another());
    }

    private static String token(Http.Answer link) {
        String url = link.json().path("url").asString();
        return url.substring(url.lastIndexOf('/') + 1);
    }

    /** Somebody with a link and no account. */
    static final class Sender {
        final Http http;
        final String token;
        String submission = "";
        String ticket = "";

        Sender(String token) {
            this(token, new Http());
        }

        Sender(String token, Http http) {
            this.token = token;
            this.http = http;
        }

        Http.Answer page() {
            return http.get("/api/basket", "Oak-Link", token, "Oak-Ticket", ticket);
        }

        Http.Answer seen() {
            return http.post("/api/basket/seen", "", "Oak-Link", token, "Oak-Ticket", ticket);
        }

        Http.Answer begin(String name, String email) {
            ObjectNode who = Http.JSON.createObjectNode().put("name", name).put("email", email);
            Http.Answer begun = http.post("/api/basket/submissions", who.toString(), "Oak-Link", token, "Oak-Ticket", ticket);
            submission = begun.json().path("submission").asString("");
            return begun;
        }

        Sender begin() {
            begin("", "");
            return this;
        }

        Http.Answer create(int item, String name, long length, String... more) {
            return http.send("POST", "/api/uploads", new byte[0], headers(item, name, length, more));
        }

        /** Creates and sends in one request. */
        Http.Answer send(int item, String name, byte[] content) {
            return http.send("POST", "/api/uploads", content, headers(item, name, content.length, "Content-Type", "application/offset+octet-stream"));
        }

        private String[] headers(int item, String name, long length, String... more) {
            String metadata = "filename " + base64(name) + ",item " + base64(Integer.toString(item));
            String[] all = java.util.Arrays.copyOf(new String[] {"Oak-Link", token, "Oak-Submission", submission.isEmpty() ? "none" : submission, "Oak-Ticket", ticket,
                "Tus-Resumable", "1.0.0", "Upload-Length", Long.toString(length), "Upload-Metadata", metadata}, 12 + more.length);
            System.arraycopy(more, 0, all, 12, more.length);
            return all;
        }

        Http.Answer patch(String location, long offset, byte[] content) {
            return http.send("PATCH", location, content, "Tus-Resumable", "1.0.0", "Upload-Offset", Long.toString(offset), "Content-Type", "application/offset+octet-stream");
        }

        Http.Answer head(String location) {
            return http.send("HEAD", location, null, "Tus-Resumable", "1.0.0");
        }

        Http.Answer finish() {
            return http.post("/api/basket/submissions/finish", "{}", "Oak-Submission", submission);
        }

        private static String base64(String text) {
            return Base64.getEncoder().encodeToString(text.getBytes(StandardCharsets.UTF_8));
        }
    }

    /** The smallest content that is a PDF for everybody who looks. */
    static byte[] pdf(String text) {
        return ("%PDF-1.4\n% " + text + "\n%%EOF\n").getBytes(StandardCharsets.UTF_8);
    }
}
