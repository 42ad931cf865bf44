package lane.picture.field;

import lane.mesh.Point;

/**
 * A parallel projection that turns like a turntable: the z axis always stands upright.
 *
 * @param centre the place in the middle of the picture, in metres
 * @param yaw angle of the view about z in radians; 0 looks along +y
 * @param pitch angle above the horizon in radians, -pi/2 to pi/2
 * @param scale pixels a metre
 */
public record Camera(Point centre, double yaw, double pitch, double scale) {
    /** A view of the whole box from the front, the right and above. */
    public static Camera fit(double[] bounds, double width, double height, double yaw, double pitch) {
        var centre = new Point((bounds[0] + bounds[1]) / 2, (bounds[2] + bounds[3]) / 2, (bounds[4] + bounds[5]) / 2);
        var unit = new Camera(centre, yaw, pitch, 1);
        double w = 1e-12;
        double h = 1e-12;
        double[] p = new double[3];
        for (int i = 0; i < 8; i++) {
            unit.project(bounds[i & 1], bounds[2 + (i >> 1 & 1)], bounds[4 + (i >> 2 & 1)], 0, 0, p);
            w = Math.max(w, Math.abs(p[0]));
            h = Math.max(h, Math.abs(p[1]));
        }
        return new Camera(centre, yaw, pitch, 0.92 * Math.min(width / (2 * w), height / (2 * h)));
    }

    /** Direction to the right of the picture. */
    public Point right() {
        return new Point(Math.cos(yaw), Math.sin(yaw), 0);
    }

    /** Direction into the picture, away from the eye. */
    public Point forward() {
        return new Point(-Math.sin(yaw) * Math.cos(pitch), Math.cos(yaw) * Math.cos(pitch), -Math.sin(pitch));
    }

    /** Direction to the top of the picture. */
    public Point up() {
        return new Point(-Math.sin(yaw) * Math.sin(pitch), Math.cos(yaw) * Math.sin(pitch), Math.cos(pitch));
    }

    /** Writes pixel x, pixel y (downwards) and depth in metres (larger is further). */
    public void project(double x, double y, double z, double width, double height, double[] out) {
        Point r = right();
        Point u = up();
        Point f = forward();
        double dx = x - centre.x();
        double dy = y - centre.y();
        double dz = z - centre.z();
        out[0] = width / 2 + scale * (dx * r.x() + dy * r.y() + dz * r.z());
        out[1] = height / 2 - scale * (dx * u.x() + dy * u.y() + dz * u.z());
        out[2] = dx * f.x() + dy * f.y() + dz * f.z();
    }

    /** The place behind a pixel at a depth. */
    public Point place(double px, double py, double depth, double width, double height) {
        return centre.plus(right().times((px - width / 2) / scale))
                .plus(up().times((height / 2 - py) / scale))
                .plus(forward().times(depth));
    }

    /** The same view in a picture so many times as large. */
    public Camera scaled(double times) {
        return new Camera(centre, yaw, pitch, scale * times);
    }

    public Camera turned(double dYaw, double dPitch) {
        return new Camera(centre, yaw + dYaw, Math.max(-Math.PI / 2, Math.min(Math.PI / 2, pitch + dPitch)), scale);
    }

    /** Turned so that a place stays where it is in the picture. */
    public Camera turnedAbout(Point pivot, double dYaw, double dPitch) {
        Point arm = pivot.minus(centre);
        Camera next = turned(dYaw, dPitch);
        Point turned = next.right()
                .times(arm.dot(right()))
                .plus(next.up().times(arm.dot(up())))
                .plus(next.forward().times(arm.dot(forward())));
        return new Camera(pivot.minus(turned), next.yaw, next.pitch, scale);
    }

    /** The same view with a box of pixels filling the picture. */
    public Camera boxed(double x0, double y0, double x1, double y1, double width, double height) {
        double w = Math.abs(x1 - x0);
        double h = Math.abs(y1 - y0);
        if (w < 2 || h < 2) {
            return this;
        }
        double factor = Math.min(width / w, height / h);
        Point middle = place((x0 + x1) / 2, (y0 + y1) / 2, 0, width, height);
        return new Camera(middle, yaw, pitch, scale * factor);
    }

    /** A camera that looks along a direction, upright; straight down or up where the direction is vertical. */
    public static double[] angles(Point into) {
        Point f = into.unit();
        double flat = Math.hypot(f.x(), f.y());
        return new double[] {flat < 1e-9 ? 0 : Math.atan2(-f.x(), f.y()), Math.atan2(-f.z(), flat)};
    }

    /** Moved so that the picture follows the pointer by so many pixels. */
    public Camera moved(double dx, double dy) {
        return new Camera(centre.plus(right().times(-dx / scale)).plus(up().times(dy / scale)), yaw, pitch, scale);
    }

    /** Zoomed so that the place under the pixel stays under it. */
    public Camera zoomed(double factor, double px, double py, double width, double height) {
        Point under = place(px, py, 0, width, height);
        var next = new Camera(centre, yaw, pitch, scale * factor);
        Point now = next.place(px, py, 0, width, height);
        return new Camera(centre.plus(under.minus(now)), yaw, pitch, scale * factor);
    }
}
