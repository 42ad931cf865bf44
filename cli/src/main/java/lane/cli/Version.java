package lane.cli;

import picocli.CommandLine.IVersionProvider;

/** The program's version, as the build wrote it. */
public final class Version {
    private Version() {}

    public static String text() {
        String version = Version.class.getPackage().getImplementationVersion();
        return version == null ? "0.1.0" : version;
    }

    /** The same for {@code --version}. */
    static final class Told implements IVersionProvider {
        @Override
        public String[] getVersion() {
            return new String[] {"Crosscheck Lane " + text()};
        }
    }
}
