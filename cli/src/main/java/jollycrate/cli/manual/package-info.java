/** Manual pages and completion of shells, made from what the commands say of themselves. */
package jollycrate.cli.manual;
