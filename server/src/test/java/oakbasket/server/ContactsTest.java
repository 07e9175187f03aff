package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import ezvcard.Ezvcard;
import ezvcard.VCard;
import ezvcard.parameter.ImageType;
import ezvcard.property.Photo;
import java.io.OutputStream;
import java.net.Socket;
import java.net.URI;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.JsonNode;

class ContactsTest {

    private static final AtomicInteger COUNT = new AtomicInteger();

    private final Http desk = Http.desk();
    /** Keeps the contacts of one test apart from all others. */
    private final String domain = "contacts" + COUNT.incrementAndGet() + ".example.org";

    @Test
    void aTableOfAnyKindIsReadPreviewedImportedAndUndone() {
        String csv = "Ref;Surname;First name;E-mail;Farm;Class\r\n7;Bröok;Ada;ada@" + domain + ";\"Brook; Sons\";East\r\n8;Reed;Ben;BEN@" + domain + ";;\r\n9;Nobody;;not an address;;\r\n";
        JsonNode staged = stage(csv.getBytes(Charset.forName("windows-1252")));
        assertThat(staged.path("charset").asString()).isEqualTo("Windows-1252");
        assertThat(staged.path("delimiter").asString()).isEqualTo(";");
        assertThat(staged.path("headed").asBoolean()).isTrue();
        assertThat(texts(staged.path("columns"))).containsExactly("REFERENCE", "LAST_NAME", "FIRST_NAME", "EMAIL", "ORGANISATION", "GROUPS");
        String mapping = mapping(staged, "Imported " + domain);
        JsonNode preview = preview(staged, mapping, "REFUSED");
        assertThat(List.of(preview.path("added").asInt(), preview.path("changed").asInt(), preview.path("unchanged").asInt(), preview.path("refused").asInt())).containsExactly(2, 0, 0, 1);
        assertThat(preview.path("lines").get(0).path("number").asInt()).isEqualTo(4);
        assertThat(preview.path("lines").get(0).path("reason").asString()).contains("not an e-mail address");
        assertThat(found(domain)).as("nothing happens until confirmed").isEmpty();

        long act = apply(staged, mapping);
        assertThat(found(domain)).extracting(one -> one.path("name").asString() + "|" + one.path("organisation").asString() + "|" + one.path("reference").asString())
                .containsExactly("Ada Bröok|Brook; Sons|7", "Ben Reed||8");
        assertThat(texts(found("ada@" + domain).get(0).path("groups"))).containsExactly("East", "Imported " + domain);

        JsonNode again = stage(("E-mail,Name,Notes\nada@" + domain + ",Ada Brook,rings\nben@" + domain + ",,\n").getBytes(StandardCharsets.UTF_8));
        JsonNode second = preview(again, mapping(again, ""), "CHANGED");
        assertThat(List.of(second.path("added").asInt(), second.path("changed").asInt(), second.path("unchanged").asInt())).containsExactly(0, 1, 1);
        assertThat(texts(second.path("lines").get(0).path("changes"))).containsExactly("name", "notes");
        long change = apply(again, mapping(again, ""));
        assertThat(found("ada@" + domain).get(0).path("notes").asString()).isEqualTo("rings");
        assertThat(desk.post("/api/contact-acts/" + change + "/undo", "").json().path("kept").asInt()).isZero();
        assertThat(found("ada@" + domain).get(0).path("name").asString()).isEqualTo("Ada Bröok");
        assertThat(desk.post("/api/contact-acts/" + change + "/undo", "").problem()).isEqualTo("undone-already");
        desk.post("/api/contact-acts/" + act + "/undo", "");
    }

    /** Whoever was handed something out stays when the import that brought them is undone; the rest of it is undone all the same. */
    @Test
    void undoingAnImportKeepsWhoWasHandedSomethingOut() {
        JsonNode staged = stage(("E-mail,Name\nkept@" + domain + ",Kept Sallow\ngone@" + domain + ",Gone Sallow\n").getBytes(StandardCharsets.UTF_8));
        String mapping = mapping(staged, "");
        preview(staged, mapping, "ADDED");
        long act = apply(staged, mapping);
        TestParcel parcel = new TestParcel().file("a.txt", new byte[] {65});
        parcel.sheet.withArray("people").addObject().put("name", "Kept Sallow").put("email", "kept@" + domain);
        parcel.handOut();
        Http.Answer undone = desk.post("/api/contact-acts/" + act + "/undo", "");
        assertThat(undone.status()).as(undone.text()).isEqualTo(200);
        assertThat(undone.json().path("kept").asInt()).isEqualTo(1);
        assertThat(found(domain)).extracting(one -> one.path("name").asString()).containsExactly("Kept Sallow");
        assertThat(parcel.taker("Kept Sallow").page().status()).isEqualTo(200);
    }

    /** Who was taken out of a group since an import stays out of it when the import is undone; the group that the import gave goes. */
    @Test
    void undoingAnImportPutsNobodyBackIntoAGroupLeftSince() {
        String email = "fern@" + domain;
        long fern = desk.post("/api/contacts", "{\"name\":\"Fern Ash\",\"email\":\"" + email + "\",\"groups\":[\"Left " + domain + "\",\"Stays " + domain + "\"]}").json().path("contact").path("id").asLong();
        JsonNode staged = stage(("E-mail,Notes\n" + email + ",rings\n").getBytes(StandardCharsets.UTF_8));
        String mapping = mapping(staged, "Given " + domain);
        preview(staged, mapping, "CHANGED");
        long act = apply(staged, mapping);
        assertThat(desk.post("/api/groups/members", "{\"group\":\"Left " + domain + "\",\"contacts\":[" + fern + "],\"in\":false}").status()).isEqualTo(200);
        assertThat(desk.post("/api/contact-acts/" + act + "/undo", "").json().path("kept").asInt()).isZero();
        assertThat(texts(found(email).get(0).path("groups"))).containsExactly("Stays " + domain);
    }

    @Test
    void undoingAnImportLeavesWhoWasAskedSince() {
        JsonNode staged = stage(("name,email\nAda,ada@" + domain + "\nBen,ben@" + domain + "\n").getBytes(StandardCharsets.UTF_8));
        String mapping = mapping(staged, "");
        preview(staged, mapping, "ADDED");
        long act = apply(staged, mapping);
        new TestRound().person("Ada", "ada@" + domain).open();
        assertThat(desk.post("/api/contact-acts/" + act + "/undo", "").json().path("kept").asInt()).isEqualTo(1);
        assertThat(found(domain)).extracting(one -> one.path("name").asString()).containsExactly("Ada");
    }

    @Test
    void whatChangedBetweenPreviewAndConfirmationIsAskedAgain() {
        JsonNode staged = stage(("name,email\nAda,ada@" + domain + "\n").getBytes(StandardCharsets.UTF_8));
        String mapping = mapping(staged, "");
        preview(staged, mapping, "ADDED");
        add("Ada", "ada@" + domain, "");
        assertThat(desk.post("/api/contacts/import/" + staged.path("id").asString() + "/apply", "{\"mapping\":" + mapping + "}").problem()).isEqualTo("import-changed");
        assertThat(Http.freshDesk().get("/api/contacts/import/" + staged.path("id").asString()).status()).as("a colleague of the same account may look").isEqualTo(200);
    }

    @Test
    void tenThousandLinesTakeSecondsAndTellHowFarTheyAre() {
        StringBuilder csv = new StringBuilder("Name\tE-mail\tGroup\n");
        for (int i = 0; i < 10_000; i++) {
            csv.append("Person ").append(i).append("\tperson").append(i).append('@').append(domain).append("\tBig ").append(i % 7).append('\n');
        }
        long begun = System.nanoTime();
        JsonNode staged = stage(("\uFEFF" + csv).getBytes(StandardCharsets.UTF_16LE));
        assertThat(staged.path("charset").asString()).isEqualTo("UTF-16LE");
        String mapping = mapping(staged, "");
        assertThat(preview(staged, mapping, "ADDED").path("lines")).hasSize(200);
        long act = apply(staged, mapping);
        assertThat(Duration.ofNanos(System.nanoTime() - begun)).as("read, previewed and imported").isLessThan(Duration.ofSeconds(30));
        assertThat(desk.get("/api/contacts?find=" + domain).json().path("total").asInt()).isEqualTo(10_000);
        assertThat(desk.get("/api/groups").json().toString()).contains("\"Big 3\"");
        desk.post("/api/contact-acts/" + act + "/undo", "");
        assertThat(desk.get("/api/contacts?find=" + domain).json().path("total").asInt()).isZero();
        assertThat(desk.get("/api/groups").json().toString()).as("the groups that it made are gone with it").doesNotContain("\"Big 3\"");
    }

    @Test
    void mergingIsRefusedWhenAColleagueChangedOneOfTheTwoMeanwhile() {
        long kept = add("Carys Holm", "carys@" + domain, "");
        long gone = add("C. Holm", "c.holm@" + domain, "");
        String body = "{\"keep\":" + kept + ",\"gone\":" + gone + ",\"keepVersion\":%d,\"goneVersion\":%d}";
        assertThat(desk.post("/api/contacts/merge", body.formatted(1, 2)).problem()).isEqualTo("changed-elsewhere");
        assertThat(desk.post("/api/contacts/merge", body.formatted(7, 1)).problem()).isEqualTo("changed-elsewhere");
        assertThat(found(domain)).hasSize(2);
        assertThat(desk.post("/api/contacts/merge", body.formatted(1, 1)).status()).isEqualTo(200);
    }

    /** Sources: UAX #15: one letter in two forms, and letters with and without their marks. */
    @ParameterizedTest
    @CsvSource({"zoe angstrom", "ZOË ÅNGSTRÖM", "zoe\u0308", "ångstrom", "strasse"})
    void aPersonIsFoundHoweverTheNameIsTyped(String typed) {
        add("Zoë Ångström Straße", "zoe@" + domain, "");
        assertThat(desk.get("/api/contacts?find=" + java.net.URLEncoder.encode(typed, StandardCharsets.UTF_8)).json().path("contacts").toString()).contains("zoe@" + domain);
    }

    @ParameterizedTest
    @ValueSource(strings = {"PK\u0003\u0004workbook", "\u0000\u0001\u0002\u0003MZ binary \u0000 called .csv", "", "\n \n"})
    void whatIsNoTableIsRefusedPlainly(String content) {
        Http.Answer refused = desk.send("POST", "/api/contacts/import", content.getBytes(StandardCharsets.ISO_8859_1));
        assertThat(refused.status()).isEqualTo(422);
        assertThat(refused.problem()).startsWith("import-");
    }

    @Test
    void aTableWithoutAnAddressColumnNamesTheField() {
        JsonNode staged = stage("shoe,size\n1,2\n".getBytes(StandardCharsets.UTF_8));
        assertThat(desk.post("/api/contacts/import/" + staged.path("id").asString() + "/preview", "{\"mapping\":" + mapping(staged, "") + "}").at("columns")).contains("e-mail");
    }

    /** By its announced length, before any of it is read. */
    @Test
    void twoHundredMegabytesAreRefusedAtOnce() throws Exception {
        String cookies = desk.client().cookieHandler().orElseThrow().get(URI.create(RunningApp.URL), java.util.Map.of()).getOrDefault("Cookie", List.of()).stream()
                .reduce((one, other) -> one + "; " + other).orElse("");
        String token = cookies.replaceAll(".*XSRF-TOKEN=([^;]+).*", "$1");
        URI url = URI.create(RunningApp.URL);
        try (Socket socket = new Socket(url.getHost(), url.getPort())) {
            socket.setSoTimeout(10_000);
            OutputStream out = socket.getOutputStream();
            out.write(("POST /api/contacts/import HTTP/1.1\r\nHost: x\r\nCookie: " + cookies + "\r\nX-XSRF-TOKEN: " + token + "\r\nContent-Length: 209715200\r\n\r\nname,email\n")
                    .getBytes(StandardCharsets.US_ASCII));
            out.flush();
            byte[] answer = new byte[4000];
            int length = socket.getInputStream().read(answer);
            assertThat(new String(answer, 0, length, StandardCharsets.UTF_8)).startsWith("HTTP/1.1 413").contains("file-too-large");
        }
    }

    /** Source: RFC 6350; written and read by ez-vcard. */
    @Test
    void vcardsComeInWithoutTheirThousandPhotosAndGoOutAgain() {
        List<VCard> cards = new ArrayList<>();
        for (int i = 0; i < 1_000; i++) {
            VCard card = new VCard();
            card.setFormattedName("Card " + i);
            card.addEmail("card" + i + "@" + domain);
            card.setOrganization("Fennbrook", "Bank");
            card.setCategories("Cards " + domain, "East");
            card.addNote("=1+1, \"quoted\"; and\nnew line");
            card.addPhoto(new Photo(new byte[8_000], ImageType.JPEG));
            cards.add(card);
        }
        JsonNode staged = stage(Ezvcard.write(cards).version(ezvcard.VCardVersion.V3_0).go().getBytes(StandardCharsets.UTF_8));
        assertThat(staged.path("table").asBoolean()).isFalse();
        String mapping = "{\"columns\":[],\"headed\":false}";
        assertThat(preview(staged, mapping, "ADDED").path("added").asInt()).isEqualTo(1_000);
        long act = apply(staged, mapping);
        List<VCard> out = Ezvcard.parse(desk.get("/api/contacts.vcf?group=Cards%20" + domain).text()).all();
        assertThat(out).hasSize(1_000);
        VCard one = out.stream().filter(card -> card.getFormattedName().getValue().equals("Card 7")).findFirst().orElseThrow();
        assertThat(one.getEmails().get(0).getValue()).isEqualTo("card7@" + domain);
        assertThat(one.getNotes().get(0).getValue()).isEqualTo("=1+1, \"quoted\"; and\nnew line");
        assertThat(one.getCategories().getValues()).contains("East");
        assertThat(one.getPhotos()).isEmpty();
        desk.post("/api/contact-acts/" + act + "/undo", "");
    }

    /** Source: OWASP, CSV Injection. What goes out comes in again as it was. */
    @Test
    void formulaCellsGoOutHarmlessAndComeBackAsTheyWere() {
        add("=HYPERLINK(\"http://example.net\")", "formula@" + domain, "+SUM(1)");
        desk.post("/api/groups/members", "{\"group\":\"Formulas\",\"in\":true,\"contacts\":[" + found("formula@" + domain).get(0).path("id") + "]}");
        String csv = desk.get("/api/contacts.csv?group=Formulas").text();
        assertThat(csv).contains("\"'=HYPERLINK(\"\"http://example.net\"\")\"").contains("'+SUM(1)");
        JsonNode staged = stage(csv.getBytes(StandardCharsets.UTF_8));
        assertThat(preview(staged, mapping(staged, ""), "UNCHANGED").path("unchanged").asInt()).isEqualTo(1);
    }

    @Test
    void aContactIsChangedByHandWithItsFaultsAtTheirFields() {
        Http.Answer slip = desk.post("/api/contacts", "{\"name\":\"Sid\",\"email\":\"sid." + domain + "@gmial.com\",\"groups\":[\"East\"]}");
        assertThat(slip.status()).isEqualTo(201);
        assertThat(slip.json().path("remarks").get(0).asString()).contains("@gmail.com");
        assertThat(slip.json().path("contact").path("email").asString()).as("never changed silently").endsWith("@gmial.com");
        long id = slip.json().path("contact").path("id").asLong();
        Http.Answer wrong = desk.put("/api/contacts/" + id, "{\"version\":1,\"name\":\" \",\"email\":\"x\",\"zone\":\"Nowhere\",\"language\":\"q\"}");
        assertThat(List.of("name", "email", "zone", "language")).allSatisfy(field -> assertThat(wrong.at(field)).isNotEmpty());
        String better = "{\"version\":1,\"name\":\"Sid\",\"email\":\"sid@" + domain + "\",\"groups\":[\"West\"],\"zone\":\"Europe/Dublin\",\"language\":\"ga\"}";
        assertThat(desk.put("/api/contacts/" + id, better).json().path("contact").path("groups").toString()).isEqualTo("[\"West\"]");
        assertThat(desk.put("/api/contacts/" + id, better).problem()).isEqualTo("changed-elsewhere");
        assertThat(desk.post("/api/contacts", "{\"name\":\"Other\",\"email\":\"SID@" + domain + "\"}").at("email")).contains("Sid");
        assertThat(desk.get("/api/contacts/suggest?find=sid@" + domain).json().path("contacts")).hasSize(1);
    }

    @Test
    void theSamePersonTwiceIsOfferedMergedAndPartedAgain() {
        long kept = add("Wren Alder", "wren@" + domain, "Alder Farm");
        long gone = add("Alder, Wren", "wren.alder@" + domain, "ALDER FARM");
        assertThat(desk.get("/api/contacts/twice").json().toString()).contains("wren.alder@" + domain);
        TestRound round = new TestRound().person("Wren Alder", "wren@" + domain).person("W", "wren.alder@" + domain).open();
        TestRound.Sender second = round.personal("Alder, Wren").begin();
        second.send(1, "a.pdf", TestRound.pdf("x"));
        TestRound.Sender before = round.personal("Alder, Wren");
        long act = desk.post("/api/contacts/merge", "{\"keep\":" + kept + ",\"gone\":" + gone + "}").json().path("act").asLong();
        assertThat(round.standing("Wren Alder", 0)).as("what was sent moved along").isEqualTo("ARRIVED");
        assertThat(round.board().path("counts").path("asked").asInt()).isEqualTo(3);
        assertThat(before.page().json().path("items").get(0).path("arrived").asInt()).as("the other link opens the joined basket").isEqualTo(1);
        JsonNode page = desk.get("/api/contacts/" + kept).json();
        assertThat(page.path("merged").get(0).path("email").asString()).isEqualTo("wren.alder@" + domain);
        assertThat(page.path("rounds").get(0).path("files").get(0).path("item").asString()).isEqualTo("Consent");
        assertThat(desk.post("/api/contacts", "{\"name\":\"X\",\"email\":\"wren.alder@" + domain + "\"}").at("email")).contains("Wren Alder");
        assertThat(desk.post("/api/contacts/merge", "{\"keep\":" + gone + ",\"gone\":" + kept + "}").problem()).isEqualTo("merge-same");
        assertThat(desk.post("/api/contact-acts/" + act + "/undo", "").status()).isEqualTo(200);
        assertThat(round.standing("Wren Alder", 0)).isEqualTo("WANTED");
        assertThat(round.standing("Alder, Wren", 0)).isEqualTo("ARRIVED");
        assertThat(round.board().path("counts").path("asked").asInt()).isEqualTo(4);
    }

    @Test
    void aFileUnderWayWhileContactsAreMergedFindsItsPerson() throws Exception {
        long kept = add("Bryony Sill", "bryony@" + domain, "");
        long gone = add("B. Sill", "b.sill@" + domain, "");
        TestRound round = new TestRound().person("Bryony Sill", "bryony@" + domain).person("B. Sill", "b.sill@" + domain).open();
        TestRound.Sender sender = round.personal("B. Sill").begin();
        byte[] content = TestRound.pdf("x".repeat(2000));
        String location = sender.create(1, "long.pdf", content.length).header("Location");
        try (SlowUpload slow = new SlowUpload(sender, location, content, 1000)) {
            assertThat(desk.post("/api/contacts/merge", "{\"keep\":" + kept + ",\"gone\":" + gone + "}").status()).isEqualTo(200);
            assertThat(slow.finish()).isEqualTo("HTTP/1.1 204");
        }
        assertThat(round.standing("Bryony Sill", 0)).isEqualTo("ARRIVED");
        assertThat(round.row("B. Sill").path("files").asInt()).isZero();
    }

    @Test
    void whoCameThroughAnOpenLinkIsCompletedMatchedOrDiscarded() {
        TestRound round = new TestRound().person("Marigold Fen", "marigold@" + domain).withOpenLink("").open();
        TestRound.Sender stranger = round.openLink();
        stranger.begin("Marigold Fenn", "mari@" + domain);
        stranger.send(1, "a.pdf", TestRound.pdf("x"));
        JsonNode walkIn = round.row("Marigold Fenn");
        assertThat(walkIn.path("provisional").asBoolean()).isTrue();
        long provisional = walkIn.path("contactId").asLong();
        JsonNode alike = desk.get("/api/contacts/" + provisional + "/alike").json().get(0);
        assertThat(alike.path("contact").path("email").asString()).isEqualTo("marigold@" + domain);

        long act = desk.post("/api/contacts/merge", "{\"keep\":" + alike.path("contact").path("id") + ",\"gone\":" + provisional + "}").json().path("act").asLong();
        assertThat(round.standing("Marigold Fen", 0)).isEqualTo("ARRIVED");
        assertThat(round.board().path("counts").path("walkIns").asInt()).isZero();
        desk.post("/api/contact-acts/" + act + "/undo", "");
        assertThat(round.board().path("counts").path("walkIns").asInt()).isEqualTo(1);

        long discarded = desk.post("/api/contacts/" + provisional + "/discard", "").json().path("act").asLong();
        assertThat(round.board().path("counts").path("walkIns").asInt()).isZero();
        assertThat(found("mari@" + domain)).isEmpty();
        TestRound.Sender again = round.openLink();
        again.begin("Marigold Fenn", "mari@" + domain);
        again.send(1, "b.pdf", TestRound.pdf("y"));
        assertThat(round.row("Marigold Fenn").path("files").asInt()).as("who sends again is seen again, with all of it").isEqualTo(2);
        assertThat(desk.post("/api/contact-acts/" + discarded + "/undo", "").status()).isEqualTo(200);

        assertThat(desk.put("/api/contacts/" + provisional, "{\"version\":" + desk.get("/api/contacts/" + provisional).json().path("contact").path("version")
                + ",\"name\":\"Marigold Fenn\",\"email\":\"mari@" + domain + "\"}").json().path("contact").path("provisional").asBoolean()).isFalse();
        assertThat(desk.post("/api/contacts/" + provisional + "/discard", "").problem()).isEqualTo("contact-in-rounds");
    }

    // --- helpers

    private JsonNode stage(byte[] content) {
        Http.Answer staged = desk.send("POST", "/api/contacts/import", content);
        assertThat(staged.status()).as(staged.text()).isEqualTo(200);
        return staged.json();
    }

    private static String mapping(JsonNode staged, String group) {
        return "{\"columns\":" + staged.path("columns") + ",\"headed\":" + staged.path("headed") + ",\"group\":\"" + group + "\"}";
    }

    private JsonNode preview(JsonNode staged, String mapping, String verdict) {
        Http.Answer preview = desk.post("/api/contacts/import/" + staged.path("id").asString() + "/preview", "{\"mapping\":" + mapping + ",\"verdict\":\"" + verdict + "\"}");
        assertThat(preview.status()).as(preview.text()).isEqualTo(200);
        return preview.json();
    }

    private long apply(JsonNode staged, String mapping) {
        String path = "/api/contacts/import/" + staged.path("id").asString();
        assertThat(desk.post(path + "/apply", "{\"mapping\":" + mapping + ",\"source\":\"test\"}").status()).isEqualTo(202);
        JsonNode progress = Waiting.until(() -> desk.get(path).json(), one -> !one.path("state").asString().equals("RUNNING"));
        assertThat(progress.path("state").asString()).isEqualTo("DONE");
        return progress.path("act").asLong();
    }

    private long add(String name, String email, String organisation) {
        return desk.post("/api/contacts", Http.JSON.createObjectNode().put("name", name).put("email", email).put("organisation", organisation).toString())
                .json().path("contact").path("id").asLong();
    }

    private List<JsonNode> found(String words) {
        List<JsonNode> found = new ArrayList<>();
        desk.get("/api/contacts?find=" + words).json().path("contacts").forEach(found::add);
        return found;
    }

    private static List<String> texts(JsonNode array) {
        List<String> texts = new ArrayList<>();
        array.forEach(one -> texts.add(one.asString()));
        return texts;
    }
}
