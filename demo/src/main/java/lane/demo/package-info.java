/**
 * The demo study: the jacket's mesh, its solution, its files and its study, all made here.
 */
@NullMarked
package lane.demo;

import org.jspecify.annotations.NullMarked;
