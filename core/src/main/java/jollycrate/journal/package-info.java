/** What a delivery writes down before and after each step, its lock, and the records kept. */
package jollycrate.journal;
