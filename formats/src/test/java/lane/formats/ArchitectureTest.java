package lane.formats;

import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import org.junit.jupiter.api.Test;

class ArchitectureTest {
    @Test
    void packagesHaveNoCycle() {
        var classes = new ClassFileImporter()
                .withImportOption(ImportOption.Predefined.DO_NOT_INCLUDE_TESTS)
                .importPackages("lane.formats");
        slices().assignedFrom(new ByPackage()).should().beFreeOfCycles().check(classes);
    }

    /** One slice a package. */
    private static final class ByPackage implements com.tngtech.archunit.library.dependencies.SliceAssignment {
        @Override
        public com.tngtech.archunit.library.dependencies.SliceIdentifier getIdentifierOf(
                com.tngtech.archunit.core.domain.JavaClass type) {
            return com.tngtech.archunit.library.dependencies.SliceIdentifier.of(type.getPackageName());
        }

        @Override
        public String getDescription() {
            return "packages";
        }
    }
}
