/**
 * Numbers with how well they are known: value, unit, uncertainty by component. Knows units and nothing of where numbers come
 * from.
 */
package lane.estimate;
