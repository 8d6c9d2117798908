/** The unit that makes a server start with its machine. */
package jollycrate.boot;
