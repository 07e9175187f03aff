package oakbasket.server.series;

import static org.assertj.core.api.Assertions.assertThat;

import oakbasket.core.recurrence.Recurrence;
import oakbasket.server.words.ShippedWords;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class RecurrenceWordsTest {

    private static final RecurrenceWords SAID = new RecurrenceWords(ShippedWords.get());

    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource(delimiter = '|', value = {
        "FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1 | the last working day of each month",
        "FREQ=MONTHLY;BYDAY=1FR                        | the first Friday of each month",
        "FREQ=MONTHLY;BYMONTHDAY=-3                    | the third-to-last day of each month",
        "FREQ=MONTHLY;BYMONTHDAY=15;INTERVAL=3         | the 15th of every 3 months",
        "FREQ=MONTHLY;BYMONTHDAY=1,15;COUNT=6          | the first and 15th of each month, 6 times",
        "FREQ=WEEKLY                                   | every week",
        "FREQ=WEEKLY;INTERVAL=2;BYDAY=MO,TH            | every second week on Monday and Thursday",
        "FREQ=DAILY;BYDAY=MO,TU,WE,TH,FR               | every day on working day",
        "FREQ=MONTHLY                                  | every month",
        "FREQ=YEARLY;BYMONTH=9;BYDAY=1MO               | the first Monday of each year, in September",
        "FREQ=MONTHLY;BYDAY=TU,WE;BYSETPOS=2           | the second Tuesday or Wednesday of each month",
        "FREQ=MONTHLY;BYMONTHDAY=11,12,13,21,22,23    | the 11th, 12th, 13th, 21st, 22nd and 23rd of each month",
        "FREQ=MONTHLY;BYMONTHDAY=4,5,6,20,24,31       | the fourth, fifth, 6th, 20th, 24th and 31st of each month",
        "FREQ=YEARLY;BYYEARDAY=100,111,-22            | the 100th day and 111th day and 22nd-to-last day of each year",
        "FREQ=YEARLY;BYWEEKNO=1,30;BYDAY=MO           | every Monday and week 1 and 30 in each year",
        "FREQ=MONTHLY;BYDAY=FR;BYMONTHDAY=13          | every Friday and 13th, where both agree, in each month",
        "FREQ=MONTHLY;BYDAY=SA,SU                     | every weekend day in each month",
        "FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR,SA,SU;BYSETPOS=1,-1 | the first and last day of each month",
        "FREQ=MONTHLY;BYDAY=1FR,3FR                   | the first Friday and third Friday of each month",
        "FREQ=MONTHLY;BYMONTHDAY=1,2,3;BYSETPOS=2     | the second of: first, second and third of each month",
        "FREQ=YEARLY;INTERVAL=2                       | every second year",
        "FREQ=YEARLY;INTERVAL=4;BYMONTH=2,8;BYMONTHDAY=9 | the 9th of every 4 years, in February and August",
        "FREQ=DAILY;COUNT=1                           | every day, once",
        "RRULE:FREQ=DAILY;INTERVAL=10;UNTIL=20271224   | every 10 days, until 24 December 2027"})
    void rulesAreSaidInPlainWords(String rule, String words) {
        assertThat(SAID.of(new Recurrence(rule))).isEqualTo(words);
    }
}
