package lane.bench;

import java.util.List;
import java.util.concurrent.TimeUnit;
import lane.field.Part;
import lane.field.PartBuilder;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.picture.field.Camera;
import lane.picture.field.ColourScale;
import lane.picture.field.Frame;
import lane.picture.field.Look;
import lane.picture.field.Rasteriser;
import lane.picture.field.Scene;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;

/** Drawing about 240 000 triangles with depth and interpolated colour at 1280x800. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Fork(value = 1, jvmArgsAppend = "-Xmx4g")
@Warmup(iterations = 3, time = 2)
@Measurement(iterations = 5, time = 2)
public class PictureBench {
    private Scene scene;
    private Camera camera;

    @Setup
    public void setup() {
        Mesh mesh = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {140, 140, 140}, new double[] {1, 1, 1}, 0, 1);
        Part skin = new PartBuilder(mesh).whole("skin");
        float[] value = new float[skin.surface().nodeCount()];
        for (int i = 0; i < value.length; i++) {
            value[i] = (float) skin.surface().xyz()[3 * i];
        }
        scene = new Scene(List.of(Scene.surface("skin", skin.surface(), value, true, 1)));
        camera = Camera.fit(mesh.bounds(), 1280, 800, 0.6, 0.4);
    }

    @Benchmark
    public Frame draw() {
        return Rasteriser.draw(
                scene, camera, new Look(ColourScale.SIZE, 0, 1, true, false, false), 1280, 800, 0xFFFFFF);
    }
}
