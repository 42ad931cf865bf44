package lane.base;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class PlainTest {
    @Test
    void whatATerminalWouldActOnBecomesASpace() {
        assertThat(Plain.line("p\u001b[31m red\r\nnext\u202Eturned\u0000")).isEqualTo("p [31m red  next turned ");
        assertThat(Plain.line("Wärmestrom q″ in 10³ W/m², 𝛼")).isEqualTo("Wärmestrom q″ in 10³ W/m², 𝛼");
        assertThat(Plain.line("half \ud835 of a pair")).isEqualTo("half \ufffd of a pair");
        assertThat(Plain.lines("one\ttwo\r\nthree\u0007")).isEqualTo("one    two\nthree ");
        assertThat(Plain.quoted("x".repeat(200))).hasSize(63).endsWith("…\"");
    }

    @ParameterizedTest
    @CsvSource({
        "=HYPERLINK(1), '''=HYPERLINK(1)'",
        "' =1+2', ''' =1+2'",
        "@SUM(A1), '''@SUM(A1)'",
        "+x, '''+x'",
        "-cmd, '''-cmd'",
        "-3.5, -3.5",
        "+1e-9, +1e-9",
        "-1.0E-12, -1.0E-12",
        "-, -",
        "inlet, inlet",
        "a=b, a=b"
    })
    void aCellThatASpreadsheetWouldRunIsText(String text, String cell) {
        assertThat(Plain.cell(text)).isEqualTo(cell);
    }

    @ParameterizedTest
    @CsvSource({
        "swirl-gap, swirl-gap",
        "../../etc/passwd, etc-passwd",
        "'C:\\x y', C-x-y",
        "nul, file-nul",
        "COM1.csv, file-COM1.csv",
        ".hidden, hidden",
        "Größe, Gro-e",
        "温度, unnamed"
    })
    void aFileNameStaysInItsFolder(String text, String name) {
        assertThat(Plain.fileName(text)).isEqualTo(name);
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "..", "/", "\u0000", "   "})
    void aFileNameIsNeverEmpty(String text) {
        assertThat(Plain.fileName(text)).isEqualTo("unnamed");
    }

    @Test
    void ofAThousandNamesASentenceTellsTheFirst() {
        assertThat(Plain.names(List.of())).isEmpty();
        List<String> twelve = IntStream.range(0, 12).mapToObj(i -> "vat " + i).toList();
        assertThat(Plain.names(twelve)).isEqualTo(String.join(", ", twelve));
        List<String> many = IntStream.range(0, 1000).mapToObj(i -> "v" + i).toList();
        assertThat(Plain.names(many)).isEqualTo("v0, v1, v2, v3, v4, v5, v6, v7, v8, v9 and 990 others");
    }
}
