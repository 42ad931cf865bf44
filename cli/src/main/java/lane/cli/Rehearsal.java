package lane.cli;

import java.nio.file.Path;

/** Every quick verb once on the demo's files, for the launcher's start-up cache: what it loads here, the cache holds. */
final class Rehearsal {
    private Rehearsal() {}

    /** @param args the folder of the demo study, and one to write into */
    public static void main(String[] args) {
        Path study = Path.of(args[0]);
        String out = args[1];
        String mesh = study.resolve("coarse.vtu").toString();
        String table = study.resolve("rake.csv").toString();
        Lane.run("describe", mesh, table, study.resolve("spindle.lane.json").toString());
        Lane.run("describe", "--json", mesh, table);
        Lane.run("sample", mesh, "--line", "0.03,0,0.01 0.036,0,0.1", "--csv", out + "/line.csv");
        Lane.run("sample", mesh, "--points", out + "/line.csv", "--csv", out + "/points.csv");
        Lane.run("settle", out + "/line.csv", "--column", "z", "--over", "abscissa", "--json");
        Lane.run("converge", "--h", "1,1.5,2", "--values", "1,1.1,1.3", "--json");
        Lane.run("fit", out + "/line.csv", "--x", "abscissa", "--y", "z", "--json");
        Lane.run("integrate", mesh, "--over", "all", "--of", "x", "--kind", "mean", "--json");
        Lane.run("transfer", mesh, mesh, "--fields", "temperature", "--out", out + "/transfer.vtu", "--json");
        Lane.run("picture", mesh, "--colour", "temperature", "--from", "+x-y+z", "--out", out + "/picture.png");
    }
}
