/** Reversible changes as values, and those that lead from stock to what is wanted. */
package jollycrate.step;
