/** Waits for facts with a deadline, logs, and the site that both look at. */
package jollycrate.watch;
