package oakbasket.core.filekind;

import java.util.Locale;
import java.util.Set;

/** A kind of file that an item may accept: a family of media types with the name endings people know them by. */
public enum FileKind {
    PDF(Set.of("application/pdf"), Set.of("pdf")),
    IMAGE(Set.of("image/jpeg", "image/png", "image/gif", "image/webp", "image/tiff", "image/heic", "image/heif", "image/bmp"),
            Set.of("jpg", "jpeg", "png", "gif", "webp", "tif", "tiff", "heic", "heif", "bmp")),
    SPREADSHEET(Set.of("application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
            "application/vnd.oasis.opendocument.spreadsheet", "application/vnd.ms-excel", "text/csv", "text/tab-separated-values"),
            Set.of("xlsx", "ods", "xls", "csv", "tsv")),
    DOCUMENT(Set.of("application/vnd.openxmlformats-officedocument.wordprocessingml.document",
            "application/vnd.oasis.opendocument.text", "application/msword", "application/rtf", "text/plain", "text/markdown", "text/x-web-markdown"),
            Set.of("docx", "odt", "doc", "rtf", "txt", "md")),
    TRACK(Set.of("application/gpx+xml", "application/vnd.google-earth.kml+xml", "application/geo+json"),
            Set.of("gpx", "kml", "geojson")),
    ARCHIVE(Set.of("application/zip", "application/x-7z-compressed", "application/gzip", "application/x-tar"),
            Set.of("zip", "7z", "gz", "tar")),
    SOUND_OR_FILM(Set.of("audio/mpeg", "audio/mp4", "audio/ogg", "audio/vorbis", "audio/vnd.wave", "video/mp4", "video/quicktime", "video/webm", "video/x-m4v"),
            Set.of("mp3", "m4a", "ogg", "wav", "mp4", "mov", "webm"));

    private final Set<String> mediaTypes;
    private final Set<String> endings;

    FileKind(Set<String> mediaTypes, Set<String> endings) {
        this.mediaTypes = mediaTypes;
        this.endings = endings;
    }

    /** The name endings of this kind, lower case, without the dot. */
    public Set<String> endings() {
        return endings;
    }

    /** Whether the name ends like a file of this kind. */
    public boolean named(String fileName) {
        return endings.contains(endingOf(fileName));
    }

    /** Whether content of this media type belongs to this kind. */
    public boolean holds(String mediaType) {
        return mediaTypes.contains(mediaType);
    }

    /** The part after the last dot in lower case; empty when there is none. */
    public static String endingOf(String fileName) {
        int dot = fileName.lastIndexOf('.');
        return dot < 0 ? "" : fileName.substring(dot + 1).toLowerCase(Locale.ROOT);
    }
}
