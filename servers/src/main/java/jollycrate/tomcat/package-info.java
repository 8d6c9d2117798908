/** The server kind of Apache Tomcat. */
package jollycrate.tomcat;
