/** Pure rules that tell findings from what was read. */
package jollycrate.foresee;
