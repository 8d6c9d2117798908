/** What stands on a server now, and our own records there. Reading, never changing. */
package jollycrate.stock;
