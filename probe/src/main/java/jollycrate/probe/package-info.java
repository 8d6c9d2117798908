/** The small program that tries a database connection from a server's place. */
package jollycrate.probe;
