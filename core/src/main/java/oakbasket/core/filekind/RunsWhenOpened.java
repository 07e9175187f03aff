package oakbasket.core.filekind;

import java.text.Normalizer;
import java.util.Locale;
import java.util.Set;
import oakbasket.core.naming.SafeName;

/**
 * What a computer runs, or opens with script, when somebody clicks on it. Sources: Microsoft, "Blocked attachments in Outlook" and the documentation of
 * AssocIsDangerous; OWASP File Upload Cheat Sheet; freedesktop.org Desktop Entry Specification; Apple, Uniform Type Identifiers (all from memory).
 */
final class RunsWhenOpened {

    /** Native programs, installers, and scripts of a system's own shells. */
    private static final Set<String> PROGRAMS = Set.of("exe", "com", "scr", "pif", "bat", "cmd", "msi", "msp", "mst", "msu", "msix", "msixbundle", "appx", "appxbundle",
            "appinstaller", "application", "appref-ms", "dll", "ocx", "sys", "drv", "cpl", "vb", "vbs", "vbe", "vbp", "js", "jse", "ws", "wsf", "wsh", "wsc", "sct",
            "ps1", "ps1xml", "ps2", "ps2xml", "psc1", "psc2", "psd1", "psdm1", "psm1", "msh", "msh1", "msh2", "mshxml", "msh1xml", "msh2xml", "jar", "jnlp", "lnk",
            "hta", "htc", "reg", "inf", "ins", "isp", "sh", "bash", "zsh", "csh", "ksh", "fish", "elf", "app", "run", "command", "tool", "workflow", "desktop",
            "appimage", "deb", "rpm", "pkg", "mpkg", "apk", "ipa", "scf", "shb", "shs", "url", "webloc", "website", "gadget", "msc", "xll", "xbap", "diagcab", "diagcfg",
            "diagpkg", "settingcontent-ms", "search-ms", "library-ms", "theme", "themepack", "cdxml", "py", "pyc", "pyo", "pyw", "pyz", "pyzw", "pl", "rb", "php", "asp",
            "aspx", "asx", "jsp", "cgi", "scpt", "scptd", "applescript", "action", "vsmacros", "bas", "mde", "ade", "osd", "prg", "plg", "fxp", "hpj", "cnt", "grp", "crx",
            "xpi", "iqy", "slk", "oqy", "rqy", "dqy", "chm", "hlp");
    /** Pages, documents with macros, and whole disks. */
    private static final Set<String> ACTIVE = Set.of("html", "htm", "xhtml", "xht", "shtml", "svg", "svgz", "mht", "mhtml", "xsl", "xslt", "swf", "docm", "dotm", "dot",
            "xlsm", "xltm", "xlsb", "xlam", "xla", "xlm", "pptm", "potm", "ppsm", "ppam", "sldm", "ppa", "accda", "accdb", "accde", "mda", "mdb", "mdt", "mdw", "mdz", "iso",
            "img", "vhd", "vhdx", "vmdk", "dmg", "udf", "one", "onepkg", "pub", "cab", "webarchive", "rdp");

    private static final Set<String> PROGRAM_TYPES = Set.of("application/x-msdownload", "application/x-dosexec", "application/vnd.microsoft.portable-executable",
            "application/x-executable", "application/x-elf", "application/x-sharedlib", "application/x-mach-o", "application/x-mach-o-executable", "application/x-sh",
            "application/x-bat", "application/java-archive", "application/x-ms-installer", "application/x-object", "application/x-ms-shortcut", "application/java-vm",
            "application/vnd.ms-htmlhelp", "application/vnd.android.package-archive");
    private static final Set<String> ACTIVE_TYPES = Set.of("text/html", "application/xhtml+xml", "image/svg+xml", "application/x-shockwave-flash",
            "application/x-iso9660-image", "application/x-apple-diskimage", "application/vnd.ms-cab-compressed", KindCheck.MACROS);

    private RunsWhenOpened() {
    }

    /**
     * The ending of the name that would be written, in lower case; letters that only look like others (compatibility forms of UAX #15, such as full-width
     * ones) count as those.
     */
    static String endingAsWritten(String fileName) {
        String written = Normalizer.normalize(SafeName.of(fileName), Normalizer.Form.NFKC).toLowerCase(Locale.ROOT).replaceAll("[ .]+$", "");
        return FileKind.endingOf(written);
    }

    static boolean isProgram(String ending) {
        return PROGRAMS.contains(ending);
    }

    static boolean isActive(String ending) {
        return ACTIVE.contains(ending);
    }

    static boolean isProgramType(String mediaType) {
        return PROGRAM_TYPES.contains(mediaType);
    }

    static boolean isActiveType(String mediaType) {
        return ACTIVE_TYPES.contains(mediaType);
    }
}
