package lane.desk;

import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import org.junit.jupiter.api.Test;

class ArchitectureTest {
    private static final com.tngtech.archunit.core.domain.JavaClasses CLASSES = new ClassFileImporter()
            .withImportOption(ImportOption.Predefined.DO_NOT_INCLUDE_TESTS)
            .importPackages("lane.desk");

    @Test
    void packagesHaveNoCycle() {
        slices().assignedFrom(new ByPackage()).should().beFreeOfCycles().check(CLASSES);
    }

    /** A name with an underscore would lose it. */
    @Test
    void whatShowsNamesShowsThemWhole() {
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
                    .check(CLASSES);
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
