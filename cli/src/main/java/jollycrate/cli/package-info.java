/** The program: its entry, its command line. */
package jollycrate.cli;
