package lane.formats;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import lane.formats.table.TableReader;
import lane.reference.Recipe;
import lane.reference.Table;
import lane.reference.Table.Use;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Tables as other people send them: of a bakery's oven, a weir, a greenhouse, a battery test, a ski lift. */
class OthersTablesTest {
    @TempDir
    Path folder;

    private Table table(String text, Recipe recipe) throws Exception {
        return table(text, recipe, StandardCharsets.UTF_8);
    }

    private Table table(String text, Recipe recipe, Charset set) throws Exception {
        Path file = Files.write(folder.resolve("t.csv"), text.getBytes(set));
        return TableReader.read(file, "t.csv", recipe);
    }

    private Table table(String text) throws Exception {
        return table(text, Recipe.of(""));
    }

    private static void at(Table t, long header, long units, long first, int rows) {
        assertThat(t.layout().places().header()).as("header").isEqualTo(header);
        assertThat(t.layout().places().units()).as("units").isEqualTo(units);
        assertThat(t.layout().places().firstData()).as("first data").isEqualTo(first);
        assertThat(t.rows()).as("rows").isEqualTo(rows);
    }

    private static List<Long> dropped(Table t) {
        return t.found().dropped().stream().map(Table.Dropped::line).toList();
    }

    @Test
    void aTitleABlankLineAQuotedHeaderUnitsWordsAndASum() throws Exception {
        Table t = table(
                "Oven 3, loaf test of 12 May;;;;\n;;;;\n\"Time; from door\";Crumb;\"Crust, top\";State;Mass\n"
                        + "min;degC;degC;;g\n0;21,4;22,0;dough;812,5\n5;38,9;96,25;dough;n/a\n"
                        + "10;71,0;--;baking;790\n20;96,5;171,0;done;1.761,5\nTotal;;;;3.364,0\nsigned: M. Roth;;;;\n",
                Recipe.of(""),
                Charset.forName("windows-1252"));
        at(t, 3, 4, 5, 4);
        assertThat(t.headers()).containsExactly("Time; from door", "Crumb", "Crust, top", "State", "Mass");
        assertThat(t.units()).containsExactly("min", "degC", "degC", "", "g");
        assertThat(t.roles())
                .containsExactly(
                        Recipe.Role.ABSCISSA,
                        Recipe.Role.VALUE,
                        Recipe.Role.VALUE,
                        Recipe.Role.IGNORE,
                        Recipe.Role.VALUE);
        assertThat(t.column("Crust, top")).containsExactly(22, 96.25, Double.NaN, 171);
        assertThat(t.column("Mass")).containsExactly(812.5, Double.NaN, 790, 1761.5);
        assertThat(t.found().words()).containsExactly(0, 0, 0, 4, 0);
        assertThat(dropped(t)).containsExactly(9L, 10L);
        assertThat(t.found().dropped().getFirst().why())
                .contains("sum at the end")
                .contains("Total");
        assertThat(t.found().findings()).isEmpty();
        assertThat(t.layout().places().top())
                .extracting(Table.Line::use)
                .containsExactly(
                        Use.TITLE,
                        Use.BLANK,
                        Use.HEADER,
                        Use.UNITS,
                        Use.DATA,
                        Use.DATA,
                        Use.DATA,
                        Use.DATA,
                        Use.OUT,
                        Use.OUT);
        assertThat(t.layout().kind()).isEqualTo("\"Time; from door\";Crumb;\"Crust, top\";State;Mass");
    }

    @Test
    void numbersAboveTheHeaderAreNoData() throws Exception {
        Table t = table("Weir;7\nWidth (m);1.25\nOperator;Lund\n\nHead [mm],Flow [L/s],Froude [-]\n10,1.5,0.31\n"
                + "20,4.25,0.44\n30,7.75,0.52\n");
        at(t, 5, 0, 6, 3);
        assertThat(t.layout().separator()).isEqualTo("comma");
        assertThat(t.headers()).containsExactly("Head", "Flow", "Froude");
        assertThat(t.units()).containsExactly("mm", "L/s", "1");
        assertThat(dropped(t)).isEmpty();
    }

    @Test
    void unitsMayBeNumbersSharesAndBrackets() throws Exception {
        Table t = table("s\tshare\tratio\tT\n[m]\t%\t1\t(°C)\n0\t10\t0.5\t20.5\n1\t12\t0.25\t21.5\n");
        at(t, 1, 2, 3, 2);
        assertThat(t.units()).containsExactly("m", "%", "1", "°C");
        Table named = table("t / s, T / K\n0, 280.5\n1, 281.5\n".replace(", ", ","));
        assertThat(named.headers()).containsExactly("t", "T");
        assertThat(named.units()).containsExactly("s", "K");
        assertThat(named.found().findings()).hasSize(2);
        Table none = table("height / depth;T\n0;280.5\n1;281.5\n");
        assertThat(none.headers()).containsExactly("height / depth", "T");
        assertThat(none.units()).containsExactly("", "");
    }

    @Test
    void twoRowsOfNamesPartColumnsOfTheSameName() throws Exception {
        Table t = table("run 4\n,Upper shelf,,Lower shelf,\nx,T,RH,T,RH\nm,degC,%,degC,%\n0.5,21.5,60,20.25,64\n"
                + "1.5,22.5,58,20.75,63\n");
        assertThat(t.headers())
                .containsExactly("x", "Upper shelf T", "Upper shelf RH", "Lower shelf T", "Lower shelf RH");
        at(t, 3, 4, 5, 2);
        // What stands above a header that needs no help is no part of it.
        Table plain = table("Operator,Lund\nx,T\n0.5,21.5\n1.5,22.5\n");
        assertThat(plain.headers()).containsExactly("x", "T");
    }

    @Test
    void aDecimalCommaBesideACommaAsSeparatorInQuotes() throws Exception {
        Table t = table("\"Zeit\",\"Kraft [N]\"\r\n\"0,5\",\"1,25\"\r\"1,5\",\"-2,75\"\n\"2,5\",\"3\"\n");
        assertThat(t.column("Kraft")).containsExactly(1.25, -2.75, 3);
        assertThat(t.layout().decimal()).isEqualTo("comma");
        at(t, 1, 0, 2, 3);
    }

    @Test
    void whatCanBeReadInTwoWaysIsTold() throws Exception {
        Table t = table("n;F\n1;1,234\n2;2,345\n");
        assertThat(t.found().findings())
                .singleElement()
                .asString()
                .contains("\"1,234\" in line 2")
                .contains("1.234 or as 1234");
        assertThat(t.column("F")).containsExactly(1.234, 2.345);
        Table said = table("n;F\n1;1,234\n2;2,345\n", Recipe.of("").withLayout("", "", "point", "", -1, -1));
        assertThat(said.column("F")).containsExactly(1234, 2345);
        assertThat(said.found().findings()).isEmpty();
        // One number that is read in one way only decides for all.
        assertThat(table("n;F\n1;1,234\n2;2,5\n").column("F")).containsExactly(1.234, 2.5);
        assertThat(table("n;F\n1;1,234\n2;12,345,678\n").column("F")).containsExactly(1234, 12345678);
        assertThatThrownBy(() -> table("n;F\n1;1,5\n2;2.25\n")).hasMessageContaining("two decimal marks");
        assertThatThrownBy(() -> table("n;F\n1;1,234\n2;2.345\n")).hasMessageContaining("two decimal marks");
        // What stands above the table does not decide, and the doubt is told all the same.
        Table above = table("Version;1.5\n\nn;F\n1;1,234\n2;2,345\n");
        assertThat(above.column("F")).containsExactly(1.234, 2.345);
        assertThat(above.found().findings()).singleElement().asString().contains("1.234 or as 1234");
        // Thousands beside decimals are no second mark.
        assertThat(table("n;F\n1;1.234,5\n2;2.000\n").column("F")).containsExactly(1234.5, 2000);
        assertThat(table("n;F\n1;\"1,234.5\"\n2;2\u202f000.25\n").column("F")).containsExactly(1234.5, 2000.25);
    }

    @Test
    void headersThatAreRepeatedAndRowsThatDoNotFitAreLeftOutAndCounted() throws Exception {
        Table t =
                table("Cycle,U,I\n,V,A\n1,4.15,2.5\n2,4.05,2.5\nCycle,U,I\n,V,A\n3,3.95,2.5\n3.5,3.9,2.5,7\nOCV,3.9,0\n"
                        + "4,3.85,2.5\n# end of page\n5,3.75,-\nmean,3.93,2.5\nmax,4.15,2.5\n");
        at(t, 1, 2, 3, 5);
        assertThat(dropped(t)).containsExactly(5L, 6L, 8L, 9L, 13L, 14L);
        assertThat(t.found().dropped().get(0).why()).isEqualTo("the header again");
        assertThat(t.found().dropped().get(1).why()).isEqualTo("the units again");
        assertThat(t.found().dropped().get(2).why()).contains("4 cells");
        assertThat(t.found().dropped().get(3).why()).contains("\"OCV\"");
        assertThat(t.column("I")).containsExactly(2.5, 2.5, 2.5, 2.5, Double.NaN);
        assertThat(t.layout().words()).contains("6 lines left out");
    }

    @Test
    void labelsInTheFirstColumnDoNotBecomeTheAbscissa() throws Exception {
        Table t = table("Pylon;Place [m];Tension [kN]\nP1;12.5;31.5\nP2;55.5;29.25\nP3;97.5;30.75\nTotal;165.5;91.5\n");
        assertThat(t.roles()).containsExactly(Recipe.Role.IGNORE, Recipe.Role.ABSCISSA, Recipe.Role.VALUE);
        assertThat(t.column("Tension")).containsExactly(31.5, 29.25, 30.75);
        assertThat(dropped(t)).containsExactly(5L);
        // A label of that name among the others is a row as they are.
        Table among = table("Case;T\nmean;1.5\nhot;2.5\ncold;0.5\n");
        assertThat(among.rows()).isEqualTo(3);
    }

    @Test
    void marksOfMissingValuesAreTheUsualOnesAndThoseThatAreNamed() throws Exception {
        String text = "t;T\n0;20,5\n1;-999\n2;---\n3;*\n4;NaN\n5;\n6;k.A.\n7;21,5\n8;-999\n";
        Table t = table(text);
        assertThat(t.found().findings()).hasSize(2);
        assertThat(t.found().findings().get(0)).contains("\"k.A.\" in line 8");
        assertThat(t.found().findings().get(1)).contains("-999 stands 2 times");
        Table named = table(text, Recipe.of("").withMissing(List.of("-999,0", "k.a.")));
        assertThat(named.found().findings()).isEmpty();
        assertThat(named.column("T"))
                .containsExactly(
                        20.5, Double.NaN, Double.NaN, Double.NaN, Double.NaN, Double.NaN, Double.NaN, 21.5, Double.NaN);
    }

    @Test
    void anAbscissaThatTurnsBackIsTold() throws Exception {
        Table t = table("x,p\n0,1.5\n1,2.5\n2,3.5\n0.5,9.5\n1.5,8.5\n");
        assertThat(t.found().findings()).singleElement().asString().contains("\"x\" turns back at line 5");
        assertThat(table("x,p\n5,1.5\n4,2.5\n2,3.5\n").found().findings()).isEmpty();
    }

    @Test
    void namesThatCouldBeUnitsAndNamesThatAreNumbersAreTold() throws Exception {
        Table units = table("Operator;Lund\nt;T\n0;280,5\n1;281,5\n");
        assertThat(units.found().findings()).anyMatch(f -> f.contains("line 2 was taken for units (t, T)"));
        Table said =
                table("Operator;Lund\nt;T\n0;280,5\n1;281,5\n", Recipe.of("").with(new Recipe.Lines(2, -1, 0)));
        assertThat(said.headers()).containsExactly("t", "T");
        assertThat(said.found().findings()).isEmpty();
        Table years = table("Year;2019;2020\nJan;1,5;2,5\nFeb;3,5;4,5\n");
        assertThat(years.found().findings()).anyMatch(f -> f.contains("no line of names stands above"));
    }

    @Test
    void linesMayBeSaid() throws Exception {
        String text = "a;b\n1;2\nx;y\nm;K\n1,5;2,5\n2,5;3,5\n";
        Table t = table(text, Recipe.of("").with(new Recipe.Lines(3, 4, 6)));
        at(t, 3, 4, 6, 1);
        assertThat(t.headers()).containsExactly("x", "y");
        assertThat(t.units()).containsExactly("m", "K");
        Table none = table("1;2\n3;4\n", Recipe.of("").with(new Recipe.Lines(-1, -1, 0)));
        at(none, 0, 0, 1, 2);
    }

    @Test
    void aRecipeHoldsForAHeaderOrForAFile() {
        Recipe byHeader = Recipe.of("x;  y");
        assertThat(byHeader.holdsFor("a.csv", List.of("x; y"))).isTrue();
        assertThat(byHeader.holdsFor("a.csv", List.of("z"))).isFalse();
        assertThat(Recipe.of("").forFile("x.csv").forHeader("a;b").holdsFor("y.csv", List.of("a;b")))
                .isTrue();
        Recipe byFile = byHeader.forFile("rig_*.csv");
        assertThat(byFile.holdsFor("rig_12.csv", List.of("z"))).isTrue();
        assertThat(byFile.holdsFor("rigs.csv", List.of("x; y"))).isFalse();
    }

    /** As notes and wikis have them, with bars at the edges and a rule below the names, or between the columns alone. */
    @Test
    void columnsPartedByBars() throws Exception {
        Table edged =
                table("| x [mm] | p, static [Pa] | note |\n|:---|---:|------|\n| 1 | 2,5 | ok |\n| 3 | 4,5 |  |\n");
        at(edged, 1, 0, 3, 2);
        assertThat(edged.headers()).containsExactly("x", "p, static", "note");
        assertThat(edged.column("p, static")).containsExactly(2.5, 4.5);
        assertThat(edged.layout().separator()).isEqualTo("bar");
        Table plain = table("x | y\nmm | Pa\n1 | -2\n3 | 4\n");
        at(plain, 1, 2, 3, 2);
        assertThat(plain.units()).containsExactly("mm", "Pa");
        assertThat(plain.column("y")).containsExactly(-2, 4);
    }

    @Test
    void aCommentMayIntroduceTheNames() throws Exception {
        Table t = table("# made by a logger\n# columns: time(s) p1(bar) p2(bar)\n0.0 1.0e5 2\n0.1 1.1e5 *\n");
        assertThat(t.headers()).containsExactly("time", "p1", "p2");
        assertThat(t.units()).containsExactly("s", "bar", "bar");
    }
}
