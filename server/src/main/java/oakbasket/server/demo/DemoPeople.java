package oakbasket.server.demo;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import oakbasket.core.identity.MailAddress;
import oakbasket.core.identity.Person;

/** The invented people of the Fennbrook scenario. */
final class DemoPeople {

    /** One invented person. */
    record Invented(Person person, String organisation, String reference) {
    }

    static final List<Invented> LANDOWNERS = made("L", "example.org", "Ada Brook/Brook Farm", "Benjamin Oakley/Oakley Estate", "Catrin Rees/Upper Fenn Farm", "Duncan Marsh/Marsh & Daughters",
            "Elspeth Alder/Alder Holt", "Farid Haddad/Millrace Orchards", "Greta Lindqvist/North Carr Farm", "Hamish Weir/Weir Cottage", "Imogen Sallow/Sallow Bottom Farm",
            "Jonas Reed/Reed Hall", "Kirsten Vale/Vale Pastures", "Liam Copse/Copse Lane Smallholding", "Maud Withy/Withy Beds Trust", "Nikolai Stone/Stonebridge Dairy",
            "Orla Heron/Heron Mead", "Piotr Zielinski/Eastwater Farm", "Quentin Ford/Ford House", "Rosalind Beck/Beckside", "Samir Qureshi/Long Meadow Growers",
            "Tilda Moss/Moss End Farm", "Umberto Riva/Riverside Nurseries", "Verity Lock/Lock Keeper’s Croft", "Wilfred Hazel/Hazel Bank", "Zoë Ångström/Otterholt");
    static final List<Invented> SURVEYORS = made("S", "example.net", "Anouk Perrin/Upper Fenn", "Bryn Pugh/Upper Fenn", "Chidi Okafor/Mill Reach", "Dorothy Lamb/Mill Reach", "Euan Pike/Carr Dyke",
            "Freya Dace/Carr Dyke", "Gus Tench/Stonebridge", "Hana Mori/Stonebridge", "Ivo Grayling/Long Meadow", "June Barbel/Long Meadow", "Kofi Mensah/Lower Fenn",
            "Lena Roach/Lower Fenn", "Mateo Rudd/Estuary Head", "Nell Bleak/Estuary Head", "Owen Chubb/Otterholt", "Priya Nair/Otterholt", "Rhys Gudgeon/Weir Pool", "Saskia Minnow/Weir Pool");
    static final List<Invented> TRAINEES = made("T", "students.example.org", "Aisha Karim/Habitat team", "Ben Thistle/Habitat team", "Clara Novak/Water team", "Dylan Frost/Water team",
            "Esme Laurel/Engagement", "Finn Harper/Engagement", "Grace Yew/Habitat team", "Hugo Blanc/Water team", "Isla Rowan/Engagement", "Jack Bramble/Habitat team");
    static final List<Invented> WALK_INS = made("W", "example.net", "Marta Kingcup/", "Tom Yarrow/");

    private DemoPeople() {
    }

    private static List<Invented> made(String series, String domain, String... people) {
        int[] number = {0};
        return Arrays.stream(people).map(line -> {
            String[] parts = line.split("/", 2);
            String local = java.text.Normalizer.normalize(parts[0], java.text.Normalizer.Form.NFD).replaceAll("\\p{M}", "").toLowerCase(Locale.ROOT).replace(' ', '.');
            return new Invented(new Person(parts[0], MailAddress.parse(local + "@" + domain)), parts[1], "%s-%02d".formatted(series, ++number[0]));
        }).toList();
    }
}
