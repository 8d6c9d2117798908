/** The server kind of GlassFish 7.0. */
package jollycrate.glassfish;
