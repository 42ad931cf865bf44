/**
 * Answers kept in files: by whom they were made does not matter, what they rest on does. The same files let an evaluation go on
 * where one was stopped, be shared with colleagues, and be spread over the machines of a cluster.
 */
@org.jspecify.annotations.NullMarked
package lane.formats.piece;
