package oakbasket.server;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** A parcel that a coordinator makes and hands out, and those who take it away. */
final class TestParcel {

    private static int parcels;

    final Http desk;
    final long id;
    final ObjectNode sheet = Http.JSON.createObjectNode();

    TestParcel() {
        this(Http.desk());
    }

    TestParcel(Http desk) {
        this.desk = desk;
        id = desk.post("/api/parcels", "").json().path("id").asLong();
        sheet.put("title", "Parcel " + ++parcels).put("message", "").put("days", 14).put("keptDays", 30).put("open", false).put("byLetter", true).put("whenReady", false);
        sheet.putArray("people");
        sheet.putArray("reminders");
    }

    TestParcel person(String name) {
        sheet.withArray("people").addObject().put("name", name).put("email", address(name));
        return this;
    }

    static String address(String name) {
        return name.toLowerCase().replace(' ', '.') + "@example.org";
    }

    TestParcel file(String name, byte[] content) {
        long file = announce(name, content.length).json().get(0).path("id").asLong();
        Http.Answer put = bytes(file, 0, content);
        if (put.status() != 200) {
            throw new AssertionError(put.text());
        }
        return this;
    }

    Http.Answer announce(String name, long bytes) {
        return desk.post("/api/parcels/" + id + "/files", Http.JSON.createObjectNode().set("files", Http.JSON.createArrayNode().add(Http.JSON.createObjectNode().put("name", name).put("bytes", bytes))).toString());
    }

    Http.Answer bytes(long file, long at, byte[] content) {
        return desk.send("POST", "/api/parcels/" + id + "/files/" + file + "/bytes?at=" + at, content, "Content-Type", "application/octet-stream");
    }

    Http.Answer save() {
        sheet.put("version", full().path("version").asInt());
        return desk.put("/api/parcels/" + id, sheet.toString());
    }

    JsonNode full() {
        return desk.get("/api/parcels/" + id).json();
    }

    /** Waits until every file was looked at. */
    TestParcel looked() {
        Waiting.until(this::full, full -> full.path("files").valueStream().noneMatch(file -> file.path("state").asString().equals("CHECKING")));
        return this;
    }

    Http.Answer tryHandOut() {
        Http.Answer saved = save();
        if (saved.status() != 200) {
            return saved;
        }
        looked();
        return desk.post("/api/parcels/" + id + "/hand-out", "{\"version\":" + saved.json().path("version") + "}");
    }

    TestParcel handOut() {
        Http.Answer out = tryHandOut();
        if (out.status() != 200) {
            throw new AssertionError(out.text());
        }
        return this;
    }

    Http.Answer act(String what) {
        return desk.post("/api/parcels/" + id + "/" + what, "{}");
    }

    /** The way of a person; of anybody where the name is empty. */
    JsonNode way(String name) {
        for (JsonNode way : full().path("ways")) {
            if (way.path("name").asString().equals(name)) {
                return way;
            }
        }
        throw new AssertionError("No way of " + name);
    }

    /** The way of a person once so many pick-ups of files are noted, which is a moment after their last byte left. */
    JsonNode took(String name, int times) {
        return Waiting.until(() -> way(name), way -> way.path("times").asInt() == times);
    }

    Taker taker(String name) {
        String path = way(name).path("path").asString();
        return new Taker(path.substring(path.lastIndexOf('/') + 1), desk.another());
    }

    /** Whoever holds a link. */
    record Taker(String token, Http http) {

        Http.Answer page(String... headers) {
            List<String> all = new ArrayList<>(List.of(headers));
            all.addAll(List.of("Oak-Link", token));
            return http.get("/api/pick-up", all.toArray(String[]::new));
        }

        Http.Answer take(int number, String name, String... headers) {
            return http.get("/d/" + token + "/" + number + "/" + URLEncoder.encode(name, StandardCharsets.UTF_8).replace("+", "%20"), headers);
        }

        Http.Answer all(String... headers) {
            return http.get("/d/" + token + "/all", headers);
        }

        Http.Answer unlock(String passcode) {
            return http.post("/api/pick-up/passcode", "{\"passcode\":\"" + passcode + "\"}", "Oak-Link", token);
        }
    }
}
