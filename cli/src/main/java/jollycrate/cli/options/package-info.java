/** Options that several commands share. */
package jollycrate.cli.options;
