package oakbasket.server.handout;

import jakarta.servlet.http.HttpServletRequest;
import java.util.List;
import oakbasket.core.team.Permission;
import oakbasket.server.Settings;
import oakbasket.server.link.Link;
import oakbasket.server.link.Links;
import oakbasket.server.problem.Problem;
import oakbasket.server.qr.QrPicture;
import oakbasket.server.security.Needs;
import oakbasket.server.web.PublicAddress;
import org.jspecify.annotations.Nullable;
import org.springframework.http.CacheControl;
import org.springframework.http.ContentDisposition;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** QR codes and printed sheets. */
@RestController
class HandoutController {

    /**
     * Which sheets are wanted.
     *
     * @param links at most 500
     * @param passcode for the part that is torn off; it is nowhere kept in words, so it has to be typed
     */
    record SheetsWanted(@Nullable List<Long> links, @Nullable String passcode) {
    }

    /**
     * Which sheets of a parcel are wanted.
     *
     * @param links at most 500
     * @param passcode for the part that is torn off; it is nowhere kept in words, so it has to be typed
     */
    record ParcelSheetsWanted(long parcel, @Nullable List<Long> links, @Nullable String passcode) {
    }

    private final Handouts handouts;
    private final ParcelHandouts parcels;
    private final Links links;
    private final Settings settings;

    HandoutController(Handouts handouts, ParcelHandouts parcels, Links links, Settings settings) {
        this.handouts = handouts;
        this.parcels = parcels;
        this.links = links;
        this.settings = settings;
    }

    @Needs(Permission.CHANGE)
    @GetMapping("/api/handouts/{link}/qr.svg")
    ResponseEntity<byte[]> svg(@PathVariable long link, HttpServletRequest request) {
        return file(MediaType.valueOf("image/svg+xml"), "link.svg", new QrPicture(address(link, request)).svg());
    }

    @Needs(Permission.CHANGE)
    @GetMapping("/api/handouts/{link}/qr.png")
    ResponseEntity<byte[]> png(@PathVariable long link, HttpServletRequest request) {
        return file(MediaType.IMAGE_PNG, "link.png", new QrPicture(address(link, request)).png());
    }

    /** Sheets to be printed, as one PDF. */
    @Needs(Permission.CHANGE)
    @PostMapping(path = "/api/handouts", produces = MediaType.APPLICATION_PDF_VALUE)
    ResponseEntity<byte[]> sheets(@RequestBody SheetsWanted wanted, HttpServletRequest request) {
        return file(MediaType.APPLICATION_PDF, "hand-out.pdf", handouts.of(chosen(wanted.links()), passcode(wanted.passcode()), PublicAddress.of(settings, request)));
    }

    @Needs(Permission.HAND_OUT)
    @GetMapping("/api/parcel-handouts/{link}/qr.svg")
    ResponseEntity<byte[]> parcelSvg(@PathVariable long link, HttpServletRequest request) {
        return file(MediaType.valueOf("image/svg+xml"), "link.svg", new QrPicture(PublicAddress.of(settings, request) + parcels.path(link)).svg());
    }

    @Needs(Permission.HAND_OUT)
    @GetMapping("/api/parcel-handouts/{link}/qr.png")
    ResponseEntity<byte[]> parcelPng(@PathVariable long link, HttpServletRequest request) {
        return file(MediaType.IMAGE_PNG, "link.png", new QrPicture(PublicAddress.of(settings, request) + parcels.path(link)).png());
    }

    /** Sheets of a parcel to be printed, as one PDF. */
    @Needs(Permission.HAND_OUT)
    @PostMapping(path = "/api/parcel-handouts", produces = MediaType.APPLICATION_PDF_VALUE)
    ResponseEntity<byte[]> parcelSheets(@RequestBody ParcelSheetsWanted wanted, HttpServletRequest request) {
        return file(MediaType.APPLICATION_PDF, "hand-out.pdf", parcels.of(wanted.parcel(), chosen(wanted.links()), passcode(wanted.passcode()), PublicAddress.of(settings, request)));
    }

    private static List<Long> chosen(@Nullable List<Long> ids) {
        if (ids == null || ids.isEmpty() || ids.size() > Handouts.MOST_SHEETS || ids.stream().anyMatch(java.util.Objects::isNull)) {
            throw Problem.field("links", "choose-links", Handouts.MOST_SHEETS);
        }
        return ids;
    }

    private static String passcode(@Nullable String typed) {
        return typed == null ? "" : typed.strip();
    }

    private String address(long id, HttpServletRequest request) {
        Link link = links.byIds(List.of(id)).stream().findFirst().orElseThrow(() -> Problem.notFound("no-link"));
        return PublicAddress.of(settings, request) + links.path(link);
    }

    private static ResponseEntity<byte[]> file(MediaType type, String name, byte[] content) {
        return ResponseEntity.ok().contentType(type).cacheControl(CacheControl.noStore())
                .header("Content-Disposition", ContentDisposition.inline().filename(name).build().toString()).body(content);
    }
}
