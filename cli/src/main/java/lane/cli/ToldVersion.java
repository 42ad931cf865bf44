package lane.cli;

import lane.formats.io.Version;
import picocli.CommandLine.IVersionProvider;

/** What {@code --version} says. */
final class ToldVersion implements IVersionProvider {
    @Override
    public String[] getVersion() {
        return new String[] {"Crosscheck Lane " + Version.text()};
    }
}
