/**
 * The formula language: text to tokens to a tree ({@link lane.formula.Parser}), the tree to what it means with units and
 * shapes checked ({@link lane.formula.Compiler}), and that to a program over blocks of numbers ({@link
 * lane.formula.Program}). It knows no files, fields or meshes: what names stand for is told by a {@link
 * lane.formula.Scope}. The grammar is in docs/FORMULAS.md.
 */
@NullMarked
package lane.formula;

import org.jspecify.annotations.NullMarked;
