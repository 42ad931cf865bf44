package lane.formats.ledger;

import com.openhtmltopdf.util.XRLog;

/** Libraries that would say on the error stream that nobody set up their logger, or how long they took. */
final class Quiet {
    private static final String FACTORY = "log4j2.loggerContextFactory";

    private Quiet() {}

    static void libraries() {
        if (System.getProperty(FACTORY) == null) {
            System.setProperty(FACTORY, "org.apache.logging.log4j.simple.SimpleLoggerContextFactory");
            System.setProperty("log4j2.simplelogLevel", "OFF");
        }
        XRLog.setLoggingEnabled(false);
    }
}
