package lane.bench;

import java.util.List;
import java.util.concurrent.TimeUnit;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.picture.field.Camera;
import lane.picture.field.Coarse;
import lane.picture.field.ColourScale;
import lane.picture.field.DrawnFrame;
import lane.picture.field.Look;
import lane.picture.field.Rasteriser;
import lane.picture.field.Scene;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Param;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;

/** Drawing about 240 000, two and twenty million triangles with depth and interpolated colour at 1280x800. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Fork(value = 1, jvmArgsAppend = "-Xmx4g")
@Warmup(iterations = 3, time = 2)
@Measurement(iterations = 5, time = 2)
public class PictureBench {
    @Param({"140", "408", "1291"})
    public int cubes;

    private Scene scene;
    private Scene coarse;
    private Camera camera;

    @Setup
    public void setup() {
        // The six sides of a cube, each of cubes x cubes squares.
        int n = cubes + 1;
        double[] xyz = new double[18 * n * n];
        int[] nodes = new int[24 * cubes * cubes];
        int at = 0;
        for (int side = 0; side < 6; side++) {
            for (int i = 0; i < n * n; i++) {
                int p = 3 * (side * n * n + i);
                int wall = side / 3;
                xyz[p + side % 3] = wall;
                xyz[p + (side + 1) % 3] = (double) (i % n) / cubes;
                int row = i / n;
                xyz[p + (side + 2) % 3] = (double) row / cubes;
            }
            for (int i = 0; i < cubes * cubes; i++) {
                int a = side * n * n + i / cubes * n + i % cubes;
                for (int v : new int[] {a, a + 1, a + n + 1, a + n}) {
                    nodes[at++] = v;
                }
            }
        }
        Mesh mesh = Mesh.uniform(xyz, CellShape.QUAD, nodes);
        float[] value = new float[mesh.nodeCount()];
        for (int i = 0; i < value.length; i++) {
            value[i] = (float) xyz[3 * i];
        }
        scene = new Scene(List.of(Scene.surface("skin", mesh, value, true, 1)));
        coarse = Coarse.of(scene);
        camera = Camera.fit(mesh.bounds(), 1280, 800, 0.6, 0.4);
    }

    @Benchmark
    public DrawnFrame draw() {
        return Rasteriser.draw(
                scene, camera, new Look(ColourScale.SIZE, 0, 1, true, false, false), 1280, 800, 0xFFFFFF);
    }

    /** What is drawn while the view moves. */
    @Benchmark
    public DrawnFrame moving() {
        return Rasteriser.draw(
                coarse, camera, new Look(ColourScale.SIZE, 0, 1, true, false, false), 1280, 800, 0xFFFFFF);
    }

    /** Making that scene, once for every surface and quantity. */
    @Benchmark
    public Scene coarsen() {
        return Coarse.of(scene);
    }
}
