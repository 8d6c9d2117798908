/** Packing classes, pages and libraries into an archive of a shape. */
package jollycrate.pack;
