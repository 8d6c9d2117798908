/** One act of deploying or undeploying: carried out, checked, proven or taken back, recovered. */
package jollycrate.delivery;
