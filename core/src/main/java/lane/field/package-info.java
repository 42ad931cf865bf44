/**
 * What a simulation says: fields on a mesh, boundary parts, a run at one time, how its files are to be understood, and what looks wrong
 * in it. Numbers may wait in files until they are asked for. It knows meshes and units, not where files are.
 */
@NullMarked
package lane.field;

import org.jspecify.annotations.NullMarked;
