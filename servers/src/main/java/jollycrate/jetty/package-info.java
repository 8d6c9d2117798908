/** Eclipse Jetty. */
package jollycrate.jetty;
