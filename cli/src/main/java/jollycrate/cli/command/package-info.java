/** One class for each command: reads options, calls the core, hands its records to the output. */
package jollycrate.cli.command;
