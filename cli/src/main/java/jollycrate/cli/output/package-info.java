/** Renders the core's records for people and for machines; exit codes. */
package jollycrate.cli.output;
