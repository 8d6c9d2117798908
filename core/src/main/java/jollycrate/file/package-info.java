/** Files and folders of this machine, whatever they hold: digests, trees, what was seen before. */
package jollycrate.file;
