package oakbasket.core.letter;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import oakbasket.core.fault.Fault;
import oakbasket.core.fault.FaultyValue;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class LetterTextTest {

    private static final LetterFacts.Papers CONSENT = new LetterFacts.Papers("Consent pack", "", "By Friday", List.of("Map", "Certificate"), "https://oak.example.org/b/1");
    private static final LetterFacts.Papers SHEETS = new LetterFacts.Papers("Survey sheets", "Thank you.", "By Monday", List.of("Sheet"), "https://oak.example.org/b/2");

    @Test
    void fieldsAreFilledInAndTwoRoundsAreOneLetter() {
        LetterText text = new LetterText("{round}: what is missing", "Dear {name},\n\n{papers}\n\n{coordinator}, {office}");
        LetterFacts facts = new LetterFacts("Ada Reed", "Fennbrook", "Robin", List.of(CONSENT, SHEETS));
        assertThat(text.subjectFor(facts)).isEqualTo("Consent pack, Survey sheets: what is missing");
        assertThat(text.bodyFor(facts)).isEqualTo("""
                Dear Ada Reed,

                Consent pack
                By Friday
                  - Map
                  - Certificate
                https://oak.example.org/b/1

                Survey sheets
                Thank you.
                By Monday
                  - Sheet
                https://oak.example.org/b/2

                Robin, Fennbrook""");
    }

    @Test
    void whatAFieldHoldsIsNeverReadAsAField() {
        LetterFacts facts = new LetterFacts("{papers} $1 \\", "o", "c", List.of(CONSENT));
        assertThat(new LetterText("{NAME}", "{papers}").subjectFor(facts)).isEqualTo("{papers} $1 \\");
    }

    /** A header field ends with CR LF (RFC 5322, 2.2): nothing that a field holds may begin another one. */
    @ParameterizedTest
    @CsvSource(quoteCharacter = '"', value = {
        "Ada\\r\\nBcc: all@example.org,     Ada Bcc: all@example.org",
        "Ada\\nX: 1,                        Ada X: 1",
        "Ada\u2028X: 1,                    Ada X: 1",
        "gpj\u202Eexe,                     gpj exe"})
    void aSubjectIsOneLineWhateverTheFieldsHold(String name, String subject) {
        LetterFacts facts = new LetterFacts(name.translateEscapes(), "o", "c", List.of(CONSENT));
        assertThat(new LetterText("{name}", "{papers}").subjectFor(facts)).isEqualTo(subject);
        LetterFacts endless = new LetterFacts("x".repeat(5000), "o", "c", List.of(CONSENT));
        assertThat(new LetterText("{name}", "{papers}").subjectFor(endless)).hasSizeLessThan(260);
    }

    @ParameterizedTest(name = "“{0}” / “{1}”: {2} {3}")
    @CsvSource(quoteCharacter = '"', value = {
        "Hello,            {papers},              ,        ",
        "{round} {name},   {PAPERS} {office},     ,        ",
        "'',               {papers},              subject, subject-missing",
        "a\\nb,            {papers},              subject, subject-one-line",
        "Hello,            Dear {name},           body,    body-without-papers",
        "Hello,            {papers} {nmae},       body,    no-such-field",
        "{deadline},       {papers},              subject, no-such-field",
        "{papers},         {papers},              subject, subject-field-long",
        "Hello,            '',                    body,    body-missing"})
    void aTextIsCheckedWhenItIsTyped(String subject, String body, String field, String says) {
        String typed = subject.equals("''") ? "" : subject.translateEscapes();
        String typedBody = body.equals("''") ? "" : body;
        assertThat(LetterText.fault(typed, typedBody).map(Fault::field).orElse(null)).isEqualTo(field);
        if (field != null) {
            assertThatThrownBy(() -> new LetterText(typed, typedBody)).isInstanceOf(FaultyValue.class).hasMessage(says);
        }
    }

    /** Every state against every event; what is not named here is refused. */
    @Test
    void aLetterGoesOnlyKnownWays() {
        List<String> ways = new ArrayList<>();
        for (LetterState state : LetterState.values()) {
            for (LetterState.Event event : LetterState.Event.values()) {
                try {
                    ways.add(state + " " + event + " " + state.after(event));
                } catch (IllegalStateException refused) {
                    assertThat(refused).hasMessageContaining(state.name()).hasMessageContaining(event.name());
                }
            }
        }
        assertThat(ways).containsExactly("WAITING TAKE SENDING", "WAITING STOP STOPPED", "SENDING TAKEN_BY_SERVER SENT", "SENDING TRY_LATER WAITING", "SENDING GIVE_UP FAILED",
                "SENDING STOP STOPPED", "SENDING LOSE UNCERTAIN", "SENT BOUNCE BOUNCED", "FAILED SEND_AGAIN WAITING", "BOUNCED SEND_AGAIN WAITING", "UNCERTAIN BOUNCE BOUNCED",
                "UNCERTAIN ARRIVED SENT", "UNCERTAIN SEND_AGAIN WAITING", "STOPPED SEND_AGAIN WAITING");
    }

    @ParameterizedTest(name = "subject {0}, body {1}: {2}")
    @CsvSource({"150, 5000, -", "151, 5000, subject", "150, 5001, body"})
    void aTextHasItsLengths(int subject, int body, String field) {
        assertThat(LetterText.fault("s".repeat(subject), "{papers}" + "b".repeat(body - 8)).map(Fault::field).orElse("-")).isEqualTo(field);
    }

    @ParameterizedTest
    @CsvSource({"250, 250, false", "251, 250, true"})
    void aFilledInSubjectIsCutWhereAHeaderLineWouldEnd(int name, int length, boolean cut) {
        String subject = new LetterText("{name}", "{papers}").subjectFor(new LetterFacts("x".repeat(name), "o", "c", List.of(CONSENT)));
        assertThat(subject).hasSize(length);
        assertThat(subject.endsWith("…")).isEqualTo(cut);
    }

    @Test
    void theGraverKindStandsOnALetterAboutTwo() {
        assertThat(LetterKind.graver(LetterKind.REMINDER, LetterKind.OVERDUE)).isEqualTo(LetterKind.OVERDUE);
        assertThat(LetterKind.graver(LetterKind.OVERDUE, LetterKind.REMINDER)).isEqualTo(LetterKind.OVERDUE);
        assertThat(LetterKind.graver(LetterKind.RETURN, LetterKind.INVITATION)).isEqualTo(LetterKind.RETURN);
    }

    @Test
    void anUnknownFieldIsToldWithThoseThatThereAre() {
        Fault fault = LetterText.fault("{nmae}", "{papers}").orElseThrow();
        assertThat(fault.arguments()).containsExactly("{nmae}", "{name}, {round}, {papers}, {office}, {coordinator}");
        assertThat(LetterText.fault("{papers}", "{papers}").orElseThrow().arguments()).containsExactly("{papers}", "{round}");
    }
}
