package oakbasket.core.inward;

import java.util.List;
import java.util.Locale;
import java.util.stream.Stream;

/**
 * What programs write that answer for somebody, in the languages of this product and some more. Subjects are what the usual mail programs put there by themselves (common practice, no source: as met in their settings and in
 * messages); phrases are what people write as the text of such an answer. All in small letters; compared as beginnings and as parts, never as expressions.
 */
final class AutomaticReplies {

    /** How a subject begins. */
    private static final List<String> SUBJECTS = list("""
            # English
            automatic reply | automated reply | autoreply | auto-reply | auto reply | auto response | auto-response | automatic response | automated response | autoresponse | out of office
            out of the office | out-of-office | ooo: | vacation: | away from office | i am away | on leave: | on annual leave
            # German
            automatische antwort | abwesenheitsnotiz | abwesenheitsnachricht | abwesenheit | abwesend | autom. antwort | nicht im büro | nicht im haus
            # French
            réponse automatique | reponse automatique | absence du bureau | absent du bureau | absence : | absence: | message d'absence | message d’absence | notification d'absence
            # Spanish
            respuesta automática | respuesta automatica | fuera de la oficina | fuera de oficina | ausencia: | mensaje automático
            # Polish
            automatyczna odpowiedź | odpowiedź automatyczna | autoodpowiedź | poza biurem | nieobecność | wiadomość automatyczna
            # Arabic
            رد تلقائي | الرد التلقائي | خارج المكتب
            # Italian, Portuguese, Dutch, Swedish, Danish, Norwegian, Finnish, Czech, Hungarian, Turkish, Ukrainian, Russian, Romanian
            risposta automatica | fuori ufficio | resposta automática | resposta automatica | ausência temporária | automatisch antwoord | afwezig | afwezigheid | autosvar | automatiskt svar
            frånvaro | automatisk svar | automaattinen vastaus | poissa toimistosta | automatická odpověď | mimo kancelář | automatikus válasz | házon kívül | otomatik yanıt | otomatik cevap
            ofis dışında | автоматична відповідь | автоответ | автоматический ответ | răspuns automat
            """);

    /** What stands in the first lines of such an answer. */
    private static final List<String> PHRASES = list("""
            i am out of the office | i'm out of the office | i am currently out of the office | i'm currently out of the office | this is an automatic | this is an automated
            this message was generated automatically | limited access to my email | limited access to email | ich bin derzeit nicht im büro | ich bin zurzeit nicht im büro
            ihre e-mail wird nicht weitergeleitet | dies ist eine automatische | je suis actuellement absent | je suis absent du bureau | ceci est un message automatique
            ceci est une réponse automatique | estoy fuera de la oficina | me encuentro fuera de la oficina | este es un mensaje automático | esta es una respuesta automática | jestem poza biurem
            to jest wiadomość automatyczna | to jest automatyczna | wiadomość wygenerowana automatycznie | أنا خارج المكتب | هذا رد تلقائي | هذه رسالة تلقائية
            """);

    /** As much of a text is looked at. */
    private static final int BEGINNING = 600;

    private AutomaticReplies() {
    }

    private static List<String> list(String written) {
        return written.lines().filter(line -> !line.startsWith("#")).flatMap(line -> Stream.of(line.split("\\|"))).map(String::strip).filter(word -> !word.isEmpty()).toList();
    }

    /** Whether a subject, decoded (RFC 2047), is one that programs write. What answers such a subject was written by somebody. */
    static boolean bySubject(String subject) {
        String plain = plain(subject);
        return SUBJECTS.stream().anyMatch(plain::startsWith);
    }

    /** Whether a text begins like an answer that was written once for everybody. Only short ones are: whoever writes more wrote to us. */
    static boolean byText(String text) {
        String plain = plain(text);
        return plain.length() <= 2 * BEGINNING && PHRASES.stream().anyMatch(phrase -> plain.substring(0, Math.min(plain.length(), BEGINNING)).contains(phrase));
    }

    private static String plain(String text) {
        return text.toLowerCase(Locale.ROOT).replace('\u00a0', ' ').replaceAll("\\s+", " ").strip();
    }
}
