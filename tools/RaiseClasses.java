import java.io.IOException;
import java.lang.classfile.ClassFile;
import java.lang.classfile.ClassFileVersion;
import java.lang.classfile.ClassHierarchyResolver;
import java.lang.classfile.CodeTransform;
import java.lang.classfile.MethodModel;
import java.lang.classfile.MethodTransform;
import java.net.URL;
import java.net.URLClassLoader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.Collections;
import java.util.jar.JarFile;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;

/**
 * Writes libraries whose classes are older than Java 6 again as classes of Java 8, with the frames that these need: the start-up
 * cache takes no older ones, and a command line spends a third of its time on loading them. Nothing else of them changes.
 * Called by the launcher before it trains: RaiseClasses JAR...
 */
public final class RaiseClasses {
    private static final int OLD = 50;
    private static final int RAISED = 52;

    public static void main(String[] jars) throws IOException {
        for (String jar : jars) {
            Path file = Path.of(jar);
            if (old(file)) {
                Path made = file.resolveSibling(file.getFileName() + ".part");
                raise(file, made);
                Files.move(made, file, StandardCopyOption.REPLACE_EXISTING);
                System.out.println("raised " + file.getFileName());
            }
        }
    }

    private static boolean own(String entry) {
        return entry.endsWith(".class") && !entry.startsWith("META-INF") && !entry.endsWith("module-info.class");
    }

    private static boolean old(Path file) throws IOException {
        try (var jar = new JarFile(file.toFile())) {
            for (var e : Collections.list(jar.entries())) {
                if (own(e.getName())) {
                    byte[] head = jar.getInputStream(e).readNBytes(8);
                    return (head[6] << 8 | head[7] & 255) < OLD;
                }
            }
        }
        return false;
    }

    private static void raise(Path from, Path to) throws IOException {
        try (var jar = new JarFile(from.toFile());
                var loader = new URLClassLoader(new URL[] {from.toUri().toURL()});
                var out = new ZipOutputStream(Files.newOutputStream(to))) {
            var classes = ClassFile.of(
                    ClassFile.StackMapsOption.GENERATE_STACK_MAPS,
                    ClassFile.ClassHierarchyResolverOption.of(ClassHierarchyResolver.ofClassLoading(loader)));
            for (var e : Collections.list(jar.entries())) {
                byte[] bytes = jar.getInputStream(e).readAllBytes();
                out.putNextEntry(new ZipEntry(e.getName()));
                out.write(own(e.getName()) ? raised(classes, bytes) : bytes);
                out.closeEntry();
            }
        }
    }

    private static byte[] raised(ClassFile classes, byte[] bytes) {
        var model = classes.parse(bytes);
        if (model.majorVersion() >= OLD) {
            return bytes;
        }
        return classes.transformClass(model, (builder, element) -> {
            switch (element) {
                case ClassFileVersion _ -> builder.with(ClassFileVersion.of(RAISED, 0));
                case MethodModel m when m.code().isPresent() ->
                    builder.transformMethod(m, MethodTransform.transformingCode(CodeTransform.ACCEPT_ALL));
                default -> builder.with(element);
            }
        });
    }
}
