/** What a WAR, a JAR or an EAR tells about itself, and how two of them differ. */
package jollycrate.artifact;
