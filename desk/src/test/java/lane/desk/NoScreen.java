package lane.desk;

import java.io.IOException;
import java.lang.classfile.ClassFile;
import java.lang.classfile.MethodModel;
import java.lang.invoke.MethodHandles;
import java.util.Objects;

/**
 * Spares the headless platform the screen that nobody sees. Every frame it copies the window's pixels, one by one through a
 * buffer made for each, into a screen of its own; that was two thirds of what the interface's thread did in these tests, and no
 * test looks at that screen (pictures are drawn from the scene). Everything before the copy stays as it is.
 */
public final class NoScreen {
    private static final String PACKAGE = "com.sun.glass.ui.headless.";

    private static boolean done;

    private NoScreen() {}

    /** Loads the platform's window without its copy of pixels; once a program, before the toolkit starts. */
    public static synchronized void use() {
        if (done || !"Headless".equals(System.getProperty("glass.platform"))) {
            return;
        }
        done = true;
        try (var in = Objects.requireNonNull(
                NoScreen.class.getResourceAsStream("/" + PACKAGE.replace('.', '/') + "HeadlessWindow.class"))) {
            byte[] without = ClassFile.of().transformClass(ClassFile.of().parse(in.readAllBytes()), (to, part) -> {
                if (part instanceof MethodModel m && m.methodName().equalsString("blit")) {
                    to.withMethodBody(m.methodName(), m.methodType(), m.flags().flagsMask(), c -> c.return_());
                } else {
                    to.with(part);
                }
            });
            MethodHandles.privateLookupIn(Class.forName(PACKAGE + "HeadlessPlatformFactory"), MethodHandles.lookup())
                    .defineClass(without);
        } catch (IOException | ReflectiveOperationException e) {
            throw new AssertionError("the headless platform is not what it was", e);
        }
    }
}
