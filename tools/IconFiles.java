import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.DataOutputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import javax.imageio.ImageIO;
import lane.picture.AppIcon;

/** Writes the application's icon as packages want it: lane.png, lane.ico and lane.icns. Arguments: FOLDER. */
public final class IconFiles {
    public static void main(String[] args) throws Exception {
        Path folder = Files.createDirectories(Path.of(args[0]));
        Files.write(folder.resolve("lane.png"), png(512));
        Files.write(folder.resolve("lane.ico"), ico());
        Files.write(folder.resolve("lane.icns"), icns());
    }

    private static byte[] png(int size) throws Exception {
        BufferedImage image = AppIcon.of(size);
        var out = new ByteArrayOutputStream();
        ImageIO.write(image, "png", out);
        return out.toByteArray();
    }

    /** A directory of PNG images, which Windows reads since long. */
    private static byte[] ico() throws Exception {
        List<byte[]> images = new ArrayList<>();
        for (int size : AppIcon.SIZES) {
            images.add(png(size));
        }
        int at = 6 + 16 * images.size();
        ByteBuffer head = ByteBuffer.allocate(at).order(ByteOrder.LITTLE_ENDIAN);
        head.putShort((short) 0).putShort((short) 1).putShort((short) images.size());
        for (int i = 0; i < images.size(); i++) {
            int wide = AppIcon.SIZES.get(i);
            byte size = (byte) (wide == 256 ? 0 : wide);
            head.put(size).put(size).put((byte) 0).put((byte) 0).putShort((short) 1).putShort((short) 32);
            head.putInt(images.get(i).length).putInt(at);
            at += images.get(i).length;
        }
        var out = new ByteArrayOutputStream();
        out.write(head.array());
        for (byte[] image : images) {
            out.write(image);
        }
        return out.toByteArray();
    }

    /** Chunks of PNG images by their type: 128, 256 and 512 pixels. */
    private static byte[] icns() throws Exception {
        var chunks = new ByteArrayOutputStream();
        var data = new DataOutputStream(chunks);
        String[] types = {"ic07", "ic08", "ic09"};
        for (int i = 0; i < types.length; i++) {
            byte[] image = png(128 << i);
            data.writeBytes(types[i]);
            data.writeInt(8 + image.length);
            data.write(image);
        }
        var out = new ByteArrayOutputStream();
        var head = new DataOutputStream(out);
        head.writeBytes("icns");
        head.writeInt(8 + chunks.size());
        head.write(chunks.toByteArray());
        return out.toByteArray();
    }
}
