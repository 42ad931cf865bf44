/**
 * An evaluation spread over a batch cluster: the plan, its pieces as jobs, and waiting for them. The scheduler is the cluster's
 * own; nothing but a shared folder connects the parts.
 */
@org.jspecify.annotations.NullMarked
package lane.formats.cluster;
