/** What is computed on other machines: a study given to a cluster, waited for, and where its files are seen from. */
@NullMarked
package lane.desk.cluster;

import org.jspecify.annotations.NullMarked;
