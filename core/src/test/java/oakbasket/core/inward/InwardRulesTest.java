package oakbasket.core.inward;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class InwardRulesTest {

    /** RFC 3834, 2 and 5 (Auto-Submitted, null return path, lists, Precedence), RFC 2919 (List-Id), RFC 3464 (multipart/report); the rest common practice, no source. */
    @ParameterizedTest(name = "{0} from {1}: {2}")
    @CsvSource(delimiter = '|', value = {
        "Subject: My papers                                        | ada@example.org           | PERSON",
        "Auto-Submitted: no                                        | ada@example.org           | PERSON",
        "Auto-Submitted: no (a person wrote it)                    | ada@example.org           | PERSON",
        "Auto-Submitted: auto-replied (vacation)                   | ada@example.org           | AUTOMATIC",
        "auto-submitted: AUTO-GENERATED                            | ada@example.org           | AUTOMATIC",
        "X-Auto-Response-Suppress: All                             | ada@example.org           | AUTOMATIC",
        "X-Autoreply: yes                                          | ada@example.org           | AUTOMATIC",
        "Precedence: bulk                                          | ada@example.org           | AUTOMATIC",
        "Precedence: list                                          | ada@example.org           | LIST",
        "List-Id: Walkers <walkers.example.org>                    | ada@example.org           | LIST",
        "Return-Path: <>                                           | ada@example.org           | AUTOMATIC",
        "Return-Path: < >                                          | ada@example.org           | AUTOMATIC",
        "Subject: Automatic reply: Consent packs                   | ada@example.org           | AUTOMATIC",
        "Subject: Out of office: Consent packs                     | ada@example.org           | AUTOMATIC",
        "Subject: Automatische Antwort: Frist                      | ada@example.org           | AUTOMATIC",
        "Subject: Re: out of office hours map                      | ada@example.org           | PERSON",
        "Subject: hello                                            | no-reply@example.org      | AUTOMATIC",
        "Subject: hello                                            | ''                        | AUTOMATIC",
        "Subject: hello                                            | MAILER-DAEMON@example.org | AUTOMATIC",
        "Subject: Undelivered Mail Returned to Sender              | MAILER-DAEMON@example.org | REPORT",
        "Subject: Undelivered Mail Returned to Sender              | ada@example.org           | PERSON",
        "Content-Type: multipart/report; report-type=delivery-status; boundary=x | ada@example.org | REPORT",
        "Content-Type: multipart/report; report-type=disposition-notification; boundary=x | postmaster@example.org | AUTOMATIC"})
    void whoOrWhatWroteIt(String header, String from, MailKind kind) {
        MailHeaders headers = new MailHeaders();
        headers.add(header.substring(0, header.indexOf(':')), header.substring(header.indexOf(':') + 1));
        assertThat(MailKind.of(headers, from, false, headers.first("Subject"), "")).isEqualTo(kind);
    }

    /** Common practice, no source: what the usual mail programs write by themselves, and what people write into them. */
    @ParameterizedTest(name = "{0} / {1}")
    @CsvSource(delimiter = '|', value = {
        "Automatic reply: Consent packs           | ''                                                             | AUTOMATIC",
        "Abwesenheitsnotiz: Einwilligung          | ''                                                             | AUTOMATIC",
        "Réponse automatique : Dossiers           | ''                                                             | AUTOMATIC",
        "Respuesta automática: Documentos         | ''                                                             | AUTOMATIC",
        "Odpowiedź automatyczna: Dokumenty        | ''                                                             | AUTOMATIC",
        "رد تلقائي: المستندات                     | ''                                                             | AUTOMATIC",
        "Risposta automatica: Documenti           | ''                                                             | AUTOMATIC",
        "Re: Consent packs                        | I am out of the office until 12 May, with limited access to email. | AUTOMATIC",
        "Re: Consent packs                        | Dies ist eine automatische Antwort. Ich bin ab Montag zurück.  | AUTOMATIC",
        "Re: Consent packs                        | I am on leave until Monday and will send the consent then.     | PERSON",
        "Re: Automatic reply: Consent packs       | Here it is                                                     | PERSON",
        "Consent, automatic gate included         | The automatic gate is on page 2                                | PERSON",
        "Absence of the landowner                 | He signs next week                                             | PERSON"})
    void automaticRepliesAreKnownBySubjectAndShape(String subject, String text, MailKind kind) {
        assertThat(MailKind.of(new MailHeaders(), "ada@example.org", false, subject, text)).isEqualTo(kind);
        assertThat(MailKind.of(new MailHeaders(), "ada@example.org", false, subject, text + " More is written here.".repeat(100))).as("a long letter is somebody's").isEqualTo(text.isEmpty() ? kind : MailKind.PERSON);
    }

    /** RFC 8551, 3156 (signatures, encrypted), 8098 and 3464 (receipts, notices), 5546 (calendar answers), 6350 (cards), 2392 (pictures in the text); logos: common practice, no source. */
    @ParameterizedTest(name = "{0} {1} {2} {3} {4}")
    @CsvSource(value = {"application/pkcs7-signature,p7s,'',false,false,NO_PAPER", "application/octet-stream,p7s,'',false,false,NO_PAPER", "application/pgp-signature,asc,'',false,false,NO_PAPER", "text/plain,asc,'',false,false,NO_PAPER",
        "message/disposition-notification,'','',false,false,NO_PAPER", "message/delivery-status,'','',false,false,NO_PAPER", "text/calendar,ics,REPLY,false,false,NO_PAPER", "application/octet-stream,ics,counter,false,false,NO_PAPER", "text/calendar,ics,REQUEST,false,false,FOR_THE_TRAY",
        "text/calendar,ics,'',false,false,FOR_THE_TRAY", "text/vcard,vcf,'',false,false,NO_PAPER", "application/octet-stream,vcf,'',false,false,NO_PAPER", "image/png,png,'',true,false,NO_PAPER", "image/jpeg,jpg,'',false,true,NO_PAPER",
        "image/jpeg,jpg,'',false,false,PAPER", "application/pdf,pdf,'',true,false,PAPER", "application/pdf,pdf,'',false,true,PAPER", "IMAGE/PNG,PNG,'',true,false,NO_PAPER", "application/pkcs7-mime,p7m,'',false,false,FOR_THE_TRAY",
        "message/rfc822,eml,'',false,false,FOR_THE_TRAY", "application/octet-stream,gpg,'',false,false,FOR_THE_TRAY", "application/octet-stream,'','',false,false,PAPER"})
    void whatIsAttachedIsAPaperOrNot(String type, String ending, String method, boolean inText, boolean before, MailedPart part) {
        assertThat(MailedPart.of(new MailedPart.Facts(type, ending, method, inText, before))).isEqualTo(part);
    }

    @Test
    void whatIsOursOrHasGoneRoundInACircleIsALoop() {
        MailHeaders headers = new MailHeaders();
        assertThat(MailKind.of(headers, "papers@oak.example.org", true, "", "")).isEqualTo(MailKind.LOOP);
        for (int i = 0; i < MailKind.MOST_SERVERS; i++) {
            headers.add("Received", "from a by b");
        }
        assertThat(MailKind.of(headers, "ada@example.org", false, "", "")).isEqualTo(MailKind.PERSON);
        headers.add("Received", "from b by a");
        assertThat(MailKind.of(headers, "ada@example.org", false, "", "")).isEqualTo(MailKind.LOOP);
    }

    /** Source: RFC 3464, appendix E.1 and E.2, from memory. */
    @Test
    void reportsOfTheStandardAreRead() {
        assertThat(DeliveryReport.ofFields("""
                Reporting-MTA: dns; cs.utk.edu

                Original-Recipient: rfc822;louisl@larry.slip.umd.edu
                Final-Recipient: rfc822;louisl@larry.slip.umd.edu
                Action: failed
                Status: 4.0.0
                Diagnostic-Code: smtp; 426 connection timed out
                Last-Attempt-Date: Thu, 7 Jul 1994 17:15:49 -0400
                """)).containsExactly(new DeliveryReport(true, "4.0.0", "louisl@larry.slip.umd.edu", "426 connection timed out"));
        assertThat(DeliveryReport.ofFields("""
                Reporting-MTA: dns; cs.utk.edu

                Original-Recipient: rfc822;arathib@vnet.ibm.com
                Final-Recipient: rfc822;arathib@vnet.ibm.com
                Action: failed
                Status: 5.0.0 (permanent failure)
                Diagnostic-Code: smtp;
                 550 'arathib@vnet.IBM.COM' is not a registered gateway user
                Remote-MTA: dns; vnet.ibm.com

                Original-Recipient: rfc822;johnh@hpnjld.njd.hp.com
                Final-Recipient: rfc822;johnh@hpnjld.njd.hp.com
                Action: delayed
                Status: 4.0.0 (hpnjld.njd.jp.com: host name lookup failure)

                Original-Recipient: rfc822;wsnell@sdcc13.ucsd.edu
                Final-Recipient: rfc822;wsnell@sdcc13.ucsd.edu
                Action: relayed
                Status: 2.0.0
                """.replace("\n", "\r\n"))).containsExactly(
                new DeliveryReport(true, "5.0.0", "arathib@vnet.ibm.com", "550 'arathib@vnet.IBM.COM' is not a registered gateway user"),
                new DeliveryReport(false, "4.0.0", "johnh@hpnjld.njd.hp.com", "4.0.0 (hpnjld.njd.jp.com: host name lookup failure)"));
    }

    /** As common servers write it (common practice, no source). */
    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
        "<ada@example.org>: host mx.example.org said: 550 5.1.1 User unknown (in reply to RCPT TO) | true  | 5.1.1",
        "Remote host said: 552 Mailbox full                                                      | true  | ''",
        "Your message was not delivered, reason 5.7.1                                            | true  | 5.7.1",
        "451 4.7.1 Greylisted. It has not yet been delivered; we will keep trying for 5 days     | false | 4.7.1",
        "421 4.4.1 timed out. Giving up on it                                                    | true  | 4.4.1",
        "Hello Ada, see you at 5                                                                 | none  | none"})
    void plainReportsAreReadByTheirReply(String text, String failed, String status) {
        assertThat(DeliveryReport.ofPlain(text).map(report -> String.valueOf(report.failed())).orElse("none")).isEqualTo(failed);
        assertThat(DeliveryReport.ofPlain(text).map(DeliveryReport::status).orElse("none")).isEqualTo(status);
    }

    @Test
    void aReportOfAnySizeIsReadInBounds() {
        String endless = "Action: failed\nStatus: 5.1.1\nDiagnostic-Code: smtp; " + "x".repeat(2_000) + "\n\n";
        List<DeliveryReport> reports = DeliveryReport.ofFields(endless.repeat(1_000));
        assertThat(reports).hasSizeBetween(40, 50);
        assertThat(reports.get(0).words()).hasSize(301);
        assertThat(DeliveryReport.ofFields("\n \n:::\nAction\nAction:")).isEmpty();
    }
}
