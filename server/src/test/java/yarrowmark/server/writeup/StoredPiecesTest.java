package yarrowmark.server.writeup;

import static org.assertj.core.api.Assertions.assertThatCode;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.json.JsonMapper;

/**
 * Pieces as they stand in write-ups of before, the oldest first. A line here is never changed: what was stored once is
 * still read, and can still be stored once more when its write-up is edited. New forms are added below.
 */
class StoredPiecesTest {
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '\u0000',
            textBlock =
                    """
            HEADING | {"text":"Speed"}
            TEXT    | {"text":"No numbers."}
            TEXT    | {"text":"It is {n1}.","numbers":{"n1":{"of":"value","configuration":1,"metric":2}}}
            TEXT    | {"text":"{n1}","numbers":{"n1":{"of":"ratio","configuration":1,"base":2,"metric":3}}}
            TEXT    | {"text":"{n1}","numbers":{"n1":{"of":"overall","configuration":1,"base":2}}}
            TEXT    | {"text":"{n1}","numbers":{"n1":{"of":"fact","configuration":1,"key":"memory.size"}}}
            FIGURE  | {"question":{"of":"standing","deviceClass":"LAPTOP"}}
            FIGURE  | {"question":{"of":"standing","deviceClass":"LAPTOP","highlight":4},"caption":"First.","alt":"Bars."}
            FIGURE  | {"question":{"of":"bars","metric":3,"configurations":[1,2],"highlight":1,"order":"best"}}
            FIGURE  | {"question":{"of":"curves","metric":3,"configurations":[1]}}
            FIGURE  | {"question":{"of":"frames","metric":3,"configurations":[1,2]}}
            FIGURE  | {"question":{"of":"factors","configurations":[1,2,3,4],"first":"power.source","metric":3}}
            FIGURE  | {"question":{"of":"ratios","configuration":1,"base":2,"metrics":[3]}}
            FIGURE  | {"question":{"of":"value","quantity":"price","deviceClass":"PHONE"}}
            FIGURE  | {"question":{"of":"trend","model":7,"along":"os.kernel"},"caption":"","notes":"Slowly."}
            TABLE   | {"question":{"of":"ratios","configuration":1,"base":2},"caption":"All of it."}
            FACTS   | {"configurations":[1,2]}
            FACTS   | {"configurations":[1],"keys":["memory.size"],"caption":"Inside."}
            POINTS  | {"strong":["Fast."],"weak":[]}
            POINTS  | {"strong":["{n1}"],"weak":["Loud."],"dropped":["Dear."],"numbers":{"n1":{"of":"overall","configuration":1,"base":2}}}
            VERDICT | {"line":"Buy it.","mark":"4 of 5"}
            METHOD  | {"configurations":[1,2],"note":"At 22 °C."}
            FIGURE  | {"question":{"of":"ratios","configuration":1,"base":2,"by":{"purpose":1,"materiality":5,"per":"price","take":"RECORDED","baseTake":"USUAL","without":["group:STORAGE","test:9"]}}}
            FIGURE  | {"question":{"of":"standing","asked":{"deviceClass":["LAPTOP"],"purpose":2,"without":["suite:4"],"take":"ALL","typical":true},"highlight":4}}
            FIGURE  | {"question":{"of":"value","quantity":"price","asked":{"deviceClass":["LAPTOP","PHONE"],"metric":7}}}
            FIGURE  | {"question":{"of":"trend","model":7,"unit":1,"by":{"from":"2","purpose":1,"matters":3,"without":["test:9"]}}}
            FIGURE  | {"question":{"of":"card","configuration":1,"asked":{"deviceClass":["LAPTOP"]},"base":2}}
            FIGURE  | {"question":{"of":"charts","asked":{"only":[1,2],"everyTest":true},"highlight":1}}
            """)
    void aPieceOfBeforeIsStillRead(PieceKind kind, String body) {
        assertThatCode(() -> PieceShape.check(kind, JsonMapper.shared().readTree(body)))
                .doesNotThrowAnyException();
    }
}
