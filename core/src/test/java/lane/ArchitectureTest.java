package lane;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static org.assertj.core.api.Assertions.assertThat;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import java.util.List;
import org.junit.jupiter.api.DynamicTest;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestFactory;

/** The packages of core follow the chain: each sees those before it, never those after. */
class ArchitectureTest {
    private static final List<String> CHAIN = List.of(
            "base",
            "unit",
            "fit",
            "estimate",
            "convergence",
            "history",
            "provenance",
            "mesh",
            "formula",
            "field",
            "cut",
            "station",
            "transfer",
            "quantity",
            "evaluation",
            "measure",
            "reading",
            "reference",
            "check",
            "study",
            "ledger");
    private static final JavaClasses CORE = new ClassFileImporter()
            .withImportOption(ImportOption.Predefined.DO_NOT_INCLUDE_TESTS)
            .importPackages("lane");

    @TestFactory
    List<DynamicTest> eachPackageSeesOnlyThoseBeforeIt() {
        return java.util.stream.IntStream.range(0, CHAIN.size() - 1)
                .mapToObj(i -> DynamicTest.dynamicTest(CHAIN.get(i), () -> {
                    String[] later = CHAIN.subList(i + 1, CHAIN.size()).stream()
                            .map(p -> "lane." + p + "..")
                            .toArray(String[]::new);
                    noClasses()
                            .that()
                            .resideInAPackage("lane." + CHAIN.get(i) + "..")
                            .should()
                            .dependOnClassesThat()
                            .resideInAnyPackage(later)
                            .check(CORE);
                }))
                .toList();
    }

    @Test
    void everyPackageStandsInTheChain() {
        assertThat(CORE.stream()
                        .map(c ->
                                c.getPackageName().replaceFirst("^lane\\.", "").replaceFirst("\\..*", ""))
                        .distinct())
                .isSubsetOf(CHAIN);
    }

    /** A kind is named by its own file and by its services file; whoever else names one would have to know them all. */
    @Test
    void ledgerStudyAndChecksNameNoKindOfReading() {
        noClasses()
                .that()
                .resideInAnyPackage("lane.ledger..", "lane.check..")
                .should()
                .dependOnClassesThat()
                .haveNameMatching("lane\\.reading\\.(Tally|Balance|.*Of|.*Reader)(\\$.*)?")
                .check(CORE);
    }

    @Test
    void coreKnowsNoFilesNoWindowsAndDoesNotPrint() {
        noClasses()
                .should()
                .dependOnClassesThat()
                .resideInAnyPackage(
                        "java.awt..", "javax..", "javafx..", "java.nio.file..", "java.io..", "com.fasterxml..")
                .check(CORE);
        noClasses()
                .should()
                .accessField(System.class, "out")
                .orShould()
                .accessField(System.class, "err")
                .check(CORE);
    }
}
