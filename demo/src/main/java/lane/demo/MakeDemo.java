package lane.demo;

import java.nio.file.Path;

/** Makes the demo files from the command line: {@code MakeDemo FOLDER}. */
public final class MakeDemo {
    private MakeDemo() {}

    public static void main(String[] args) {
        System.out.println(DemoFiles.make(Path.of(args[0])));
    }
}
