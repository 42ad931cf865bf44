package lane.demo;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.stream.IntStream;
import lane.base.LaneException;
import lane.formats.io.AtomicFile;
import lane.formats.study.StudyJson;

/** Makes the files of the demo study, always the same. The rig's files are simulated with a fixed seed and say so. */
public final class DemoFiles {
    private static final long SEED = 20260117;
    /** What the demo is as this program makes it; a folder with this in its name is never written over by a later one. */
    public static final int VERSION = 12;

    private static final String STAMP = "demo files, version " + VERSION;

    /** A mesh of the family: cells across the gap, around and along. */
    public record Size(String name, int radial, int around, int along) {}

    /**
     * How fine all of the demo's data are.
     *
     * @param sizes of the family
     * @param plane cells across and along of the plane run
     * @param truth of the solution that stands for nature
     */
    public record Scale(List<Size> sizes, Size plane, Size truth) {
        public Scale {
            sizes = List.copyOf(sizes);
        }
    }

    public static final List<Size> SIZES =
            List.of(new Size("coarse", 6, 27, 18), new Size("medium", 12, 54, 36), new Size("fine", 24, 108, 72));

    public static final Scale WHOLE = new Scale(SIZES, new Size("axi", 24, 1, 72), new Size("truth", 192, 1, 1152));

    /** The same study on meshes of a twentieth: for tests that look at the window and not at the numbers. */
    public static final Scale SMALL = new Scale(
            List.of(new Size("coarse", 4, 18, 12), new Size("medium", 6, 27, 18), new Size("fine", 9, 42, 27)),
            new Size("axi", 9, 1, 27),
            new Size("truth", 48, 1, 288));

    private DemoFiles() {}

    /** Makes the study and its files in a folder, unless they stand there already; returns the study file. */
    public static Path make(Path folder) {
        return make(folder, WHOLE);
    }

    public static Path make(Path folder, Scale scale) {
        String mark = scale.equals(WHOLE) ? STAMP : STAMP + " " + scale;
        Path study = folder.resolve("spindle.lane.json");
        Path stamp = folder.resolve(".made");
        try {
            if (Files.exists(stamp) && Files.readString(stamp).equals(mark) && Files.exists(study)) {
                return study;
            }
            Files.createDirectories(folder);
        } catch (IOException e) {
            throw new LaneException("The demo cannot be written to " + folder + ": " + e.getMessage() + ".", e);
        }
        scale.sizes().parallelStream().forEach(s -> solve(s).write(folder, s.name()));
        var plane = solver(scale.plane());
        new JacketPlane(plane).write(folder, "jacket-axi");
        SpinUpFiles.write(folder, plane);
        var truth = solver(scale.truth());
        cone(folder.resolve("swirl-cone.stl"));
        rake(folder.resolve("rake.csv"), truth);
        torque(folder.resolve("torque-logger.csv"), truth);
        StudyJson.save(DemoStudy.make(), study);
        AtomicFile.write(stamp, mark);
        return study;
    }

    static JacketMesh solve(Size size) {
        return new JacketMesh(solver(size), size.around());
    }

    private static JacketSolver solver(Size size) {
        return new JacketSolver(size.radial(), size.along());
    }

    /** Torque of the rotor on the oil, by the trapezoidal rule along the rotor. */
    static double torque(JacketSolver flow) {
        double sum = 0;
        for (int i = 1; i < flow.z.length; i++) {
            double a = flow.swirlShear(Math.max(1, i - 1), true);
            double b = flow.swirlShear(i, true);
            sum += (a + b) / 2 * (flow.z[i] - flow.z[i - 1]);
        }
        return sum * 2 * Math.PI * Jacket.RI * Jacket.RI;
    }

    /** A curved surface of revolution inside the gap, in millimetres: from 31 mm radius at 30 mm to 35 mm at 90 mm. */
    private static void cone(Path file) {
        int around = 72;
        int along = 12;
        double[] xyz = new double[3 * (around + 1) * (along + 1)];
        int[] nodes = new int[6 * around * along];
        for (int i = 0; i <= along; i++) {
            double s = (double) i / along;
            double r = 31 + 4 * s * s * (3 - 2 * s);
            for (int k = 0; k <= around; k++) {
                double a = 2 * Math.PI * (k % around) / around;
                int at = i * (around + 1) + k;
                xyz[3 * at] = r * Math.cos(a);
                xyz[3 * at + 1] = r * Math.sin(a);
                xyz[3 * at + 2] = 30 + 60 * s;
                if (i < along && k < around) {
                    int[] two = {at, at + 1, at + around + 1, at + 1, at + around + 2, at + around + 1};
                    System.arraycopy(two, 0, nodes, 6 * (i * around + k), 6);
                }
            }
        }
        lane.formats.RunWriter.stl(file, lane.mesh.Mesh.uniform(xyz, lane.mesh.CellShape.TRIANGLE, nodes));
    }

    private static void rake(Path file, JacketSolver truth) {
        var random = new Random(SEED);
        var text = new StringBuilder("# Outlet rake, simulated: not measured. Uncertainty is expanded, k = 2.\n");
        text.append("radius [mm],temperature [degC],uncertainty [K]\n");
        double[] last = truth.temperature[truth.z.length - 1];
        for (int i = 0; i < 12; i++) {
            double radius = 30.3 + 0.49 * i;
            double at = (radius / 1000 - Jacket.RI) / (Jacket.RO - Jacket.RI) * (truth.r.length - 1);
            int j = (int) at;
            double t = last[j] + (at - j) * (last[j + 1] - last[j]) - 273.15;
            text.append(String.format(Locale.ROOT, "%.2f,%.2f,%.2f%n", radius, t + 0.12 * random.nextGaussian(), 0.25)
                    .replace("\r", ""));
        }
        AtomicFile.write(file, text.toString());
    }

    private static void torque(Path file, JacketSolver truth) {
        var random = new Random(SEED + 1);
        double mean = 1000 * torque(truth);
        List<String> rows = new ArrayList<>();
        rows.add("# Torque logger, simulated: not measured");
        rows.add("Zeit;Drehmoment");
        rows.add("s;mN m");
        double slow = 0;
        for (int i : IntStream.rangeClosed(0, 600).toArray()) {
            double t = i * 0.1;
            slow = 0.97 * slow + 0.03 * random.nextGaussian();
            double run = 1 - Math.exp(-t / 2.5);
            double value = mean * run + 0.25 * slow + 0.08 * random.nextGaussian() + 0.002 * (t - 30);
            // The logger lost its link for two seconds.
            String shown = t > 33 && t < 35
                    ? ""
                    : String.format(Locale.ROOT, "%.3f", value).replace('.', ',');
            rows.add(String.format(Locale.ROOT, "%.1f", t).replace('.', ',') + ";" + shown);
        }
        AtomicFile.write(file, String.join("\n", rows) + "\n");
    }
}
