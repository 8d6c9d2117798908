/** What is done to a database once before a release takes its place, and what is noted of that. */
package jollycrate.script;
