/** The files that people write, read into records with all their problems at once. */
package jollycrate.app;
