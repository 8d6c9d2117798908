/** The narrow verbs on a machine, files and processes, and the machine here. */
package jollycrate.host;
