package oakbasket.server.brand;

import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;
import oakbasket.core.brand.BrandColours;
import oakbasket.core.brand.Colour;
import oakbasket.core.fault.Fault;
import oakbasket.core.fault.FaultyValue;
import oakbasket.server.Settings;
import oakbasket.server.decode.Decoders;
import oakbasket.server.decode.work.MakeLogo;
import oakbasket.server.problem.Problem;
import oakbasket.server.security.Hash;
import oakbasket.server.storage.Acting;
import oakbasket.server.storage.Transactions;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** The office's own face for people outside. What cannot be read is not taken, and the nearest that can is proposed. */
@Service
public class Brand {

    static final int LONGEST_NAME = 120;
    static final int LONGEST_CONTACT = 300;
    static final int LONGEST_PRIVACY = 600;
    static final int MOST_LOGO_BYTES = 2 * 1024 * 1024;
    private static final int MOST_LOGOS = 50;
    private static final Pattern HASH = Pattern.compile("[0-9a-f]{64}");

    /**
     * What is to be said of colours.
     *
     * @param contrast the least contrast of the colour on cards and on the background
     * @param nearest the nearest colour that can be read; the same when it can
     * @param textContrast the least contrast of text on the background
     * @param nearestBackground the nearest background on which text can be read; the same when it can
     */
    record ColoursSeen(double contrast, String nearest, double textContrast, String nearestBackground) {
    }

    private final Decoders decoders;
    private final BrandTable table;
    private final Transactions transactions;
    private final Settings settings;
    private volatile @Nullable Face known;

    Brand(Decoders decoders, BrandTable table, Transactions transactions, Settings settings) {
        this.decoders = decoders;
        this.table = table;
        this.transactions = transactions;
        this.settings = settings;
    }

    /** As it is now. */
    public Face now() {
        Face face = known;
        if (face == null) {
            face = Acting.asOffice(table::face).orElse(new Face(settings.office(), "", "", "", "", "", 0));
            known = face;
        }
        return face;
    }

    /** The name of the office. */
    public String name() {
        return now().name();
    }

    /** The logo as PNG; nothing where the office has none. */
    public Optional<byte[]> logo() {
        String hash = now().logo();
        return hash.isEmpty() ? Optional.empty() : table.logo(hash);
    }

    /** A logo by its hash, whether it is in use or only tried. */
    Optional<byte[]> logo(String hash) {
        return HASH.matcher(hash).matches() ? table.logo(hash) : Optional.empty();
    }

    /** Keeps a picture to be tried as a logo. @return its hash */
    String addLogo(byte[] content) {
        MakeLogo.Logo logo = decoders.ask(new MakeLogo(), content, Decoders.Lane.DESK).orElseThrow(() -> Problem.field("logo", "logo-damaged"));
        String hash = HexFormat.of().formatHex(Hash.of(HexFormat.of().formatHex(logo.png())));
        transactions.durably(() -> {
            if (table.logos() >= MOST_LOGOS) {
                table.dropOthers(now().logo());
            }
            table.putLogo(hash, logo.png(), logo.width(), logo.height());
        });
        return hash;
    }

    /** What is to be said of colours, before they are kept. @throws Problem with status 422 naming the field */
    ColoursSeen look(String colour, String background) {
        List<Fault> faults = new ArrayList<>();
        Colour ground = background.isEmpty() ? BrandColours.USUAL_BACKGROUND : colour("background", background, faults);
        Colour wanted = colour.isEmpty() ? BrandColours.USUAL : colour("colour", colour, faults);
        if (!faults.isEmpty()) {
            throw Problem.fields(faults);
        }
        Colour usable = BrandColours.nearestBackground(ground);
        return new ColoursSeen(BrandColours.contrast(wanted, ground), BrandColours.nearest(wanted, usable).hex(), BrandColours.contrastOfText(ground), usable.hex());
    }

    /**
     * Checks a face, and brings what was typed into its form.
     *
     * @throws Problem with status 422 naming the fields
     */
    Face checked(Face typed) {
        List<Fault> faults = new ArrayList<>();
        String name = line("name", typed.name(), LONGEST_NAME, faults);
        if (name.isEmpty()) {
            faults.add(Fault.of("name", "name-missing"));
        }
        String contact = line("contact", typed.contact(), LONGEST_CONTACT, faults);
        String privacy = line("privacy", typed.privacy(), LONGEST_PRIVACY, faults);
        Colour ground = typed.background().isEmpty() ? BrandColours.USUAL_BACKGROUND : colour("background", typed.background(), faults);
        Colour colour = typed.colour().isEmpty() ? BrandColours.USUAL : colour("colour", typed.colour(), faults);
        if (!typed.logo().isEmpty() && logo(typed.logo()).isEmpty()) {
            faults.add(Fault.of("logo", "logo-gone"));
        }
        if (faults.isEmpty() && BrandColours.contrastOfText(ground) < BrandColours.LEAST) {
            faults.add(Fault.of("background", "background-contrast", BrandColours.nearestBackground(ground).hex()));
        }
        if (faults.isEmpty() && BrandColours.contrast(colour, ground) < BrandColours.LEAST) {
            faults.add(Fault.of("colour", "colour-contrast", BrandColours.nearest(colour, ground).hex()));
        }
        if (!faults.isEmpty()) {
            throw Problem.fields(faults);
        }
        return new Face(name, typed.colour().isEmpty() ? "" : colour.hex(), typed.background().isEmpty() ? "" : ground.hex(), typed.logo(), contact, privacy, typed.version());
    }

    /** Keeps a face. @throws Problem with status 422 naming fields, 409 when it was changed since its version */
    Face change(Face typed) {
        Face face = checked(typed);
        synchronized (this) {
            transactions.durably(() -> {
                if (table.face().map(Face::version).orElse(0) != typed.version()) {
                    throw Problem.conflict("changed-elsewhere");
                }
                table.put(new Face(face.name(), face.colour(), face.background(), face.logo(), face.contact(), face.privacy(), face.version() + 1));
            });
            known = null;
        }
        return now();
    }

    private static String line(String field, String typed, int longest, List<Fault> faults) {
        String text = typed.replaceAll("[\\p{Cc}\\p{Cf}\\p{Co}\\s]+", " ").strip();
        if (text.length() > longest) {
            faults.add(Fault.of(field, "longest", longest));
        }
        return text;
    }

    private static Colour colour(String field, String typed, List<Fault> faults) {
        try {
            return Colour.parse(typed);
        } catch (FaultyValue wrong) {
            faults.add(wrong.at(field));
            return Colour.BLACK;
        }
    }
}
