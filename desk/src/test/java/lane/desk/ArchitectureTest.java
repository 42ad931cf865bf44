package lane.desk;

import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;
import static org.assertj.core.api.Assertions.assertThat;

import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.domain.JavaConstructorCall;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import java.util.HashSet;
import java.util.Set;
import java.util.stream.Collectors;
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

    /** It is opened on a thread of its own while the toolkit starts: the first control that is made loads another style. */
    @Test
    void aSessionIsMadeOfNothingThatIsSeen() {
        Set<JavaClass> seen = new HashSet<>();
        Set<JavaClass> next = new HashSet<>(Set.of(CLASSES.get(Session.class)));
        while (!next.isEmpty()) {
            seen.addAll(next);
            next = next.stream()
                    .flatMap(c -> c.getConstructors().stream())
                    .flatMap(c -> c.getConstructorCallsFromSelf().stream())
                    .map(JavaConstructorCall::getTargetOwner)
                    .filter(c -> !seen.contains(c))
                    .collect(Collectors.toSet());
        }
        assertThat(seen).extracting(JavaClass::getSimpleName).contains("Document", "Carry", "TableDesk");
        assertThat(seen).noneMatch(c -> c.isAssignableTo(javafx.scene.Node.class));
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
