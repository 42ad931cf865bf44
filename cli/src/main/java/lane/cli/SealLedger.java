package lane.cli;

import java.nio.file.Path;
import java.time.Instant;
import java.util.concurrent.Callable;
import lane.formats.ledger.Seal;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Seals a ledger with a name and a statement, and a signature where there is a key. */
@Command(
        name = "seal",
        mixinStandardHelpOptions = true,
        versionProvider = ToldVersion.class,
        description =
                "Seal a ledger with a name, the date and a statement over the SHA-256 of its files; verify says whether"
                        + " it was changed after.")
final class SealLedger implements Callable<Integer> {
    @Parameters(paramLabel = "DIR", description = "the folder of the ledger")
    String folder = "";

    @Option(names = "--name", required = true, paramLabel = "NAME", description = "who seals it")
    String name = "";

    @Option(names = "--statement", paramLabel = "TEXT", description = "what is stated, such as: reviewed and accepted")
    String statement = "";

    @Option(
            names = "--key",
            paramLabel = "FILE",
            description =
                    "sign with this key: an OpenPGP secret key as exported (.asc, .gpg), or a PKCS#12 key store (.p12, .pfx)")
    @Nullable
    Path key;

    @Option(
            names = "--password",
            interactive = true,
            arity = "0..1",
            paramLabel = "PASSWORD",
            description = "opens the key; asked for if nothing follows. Else the variable LANE_KEY_PASSWORD, or none")
    char @Nullable [] password;

    @Override
    public Integer call() {
        String kept = System.getenv("LANE_KEY_PASSWORD");
        char[] opens = password != null ? password : kept != null ? kept.toCharArray() : new char[0];
        Seal seal = Seal.on(OneRun.path(folder), name, statement, Instant.now(), key, opens);
        Console.lines(seal.words());
        return 0;
    }
}
