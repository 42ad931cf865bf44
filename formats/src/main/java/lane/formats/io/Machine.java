package lane.formats.io;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;

/** Which machine and process this is, for marks that several may leave in a shared folder. */
public final class Machine {
    private static final String HOST = host();

    private Machine() {}

    /** The machine's name in letters, digits and hyphens. */
    public static String name() {
        return HOST;
    }

    /** Whether a process that left a mark has ended. Of another machine's processes nothing can be known: they live. */
    public static boolean dead(String host, long pid) {
        return host.equals(HOST) && ProcessHandle.of(pid).isEmpty();
    }

    // Asking the resolver for the own name may wait for a network.
    private static String host() {
        String named = System.getenv("COMPUTERNAME");
        for (String file : new String[] {"/proc/sys/kernel/hostname", "/etc/hostname"}) {
            if (named == null || named.isBlank()) {
                try {
                    named = Files.readString(Path.of(file), StandardCharsets.UTF_8);
                } catch (IOException e) {
                    named = null;
                }
            }
        }
        if (named == null || named.isBlank()) {
            named = System.getenv().getOrDefault("HOSTNAME", "here");
        }
        String plain = named.strip().toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]+", "_");
        return plain.substring(0, Math.min(40, plain.length()));
    }
}
