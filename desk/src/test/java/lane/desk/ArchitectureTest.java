package lane.desk;

import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import org.junit.jupiter.api.Test;

class ArchitectureTest {
    @Test
    void packagesHaveNoCycle() {
        var classes = new ClassFileImporter()
                .withImportOption(ImportOption.Predefined.DO_NOT_INCLUDE_TESTS)
                .importPackages("lane.desk");
        slices().assignedFrom(new ByPackage()).should().beFreeOfCycles().check(classes);
    }

    /** A name with an underscore would lose it. */
    @Test
    void whatShowsNamesShowsThemWhole() {
        var classes = new ClassFileImporter()
                .withImportOption(ImportOption.Predefined.DO_NOT_INCLUDE_TESTS)
                .importPackages("lane.desk");
        for (Class<?> control : java.util.List.<Class<?>>of(
                javafx.scene.control.MenuButton.class,
                javafx.scene.control.MenuItem.class,
                javafx.scene.control.CheckMenuItem.class,
                javafx.scene.control.RadioMenuItem.class,
                javafx.scene.control.Menu.class,
                javafx.scene.control.CheckBox.class)) {
            com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses()
                    .that()
                    .doNotBelongToAnyOf(Named.class)
                    .should()
                    .callConstructor(control, String.class)
                    .check(classes);
        }
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
