/** What runs in a GlassFish before it does. */
package jollycrate.insideglassfish;
