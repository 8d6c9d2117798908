/** The embedded server that such an archive brings along. */
package jollycrate.standalone.tomcat;
