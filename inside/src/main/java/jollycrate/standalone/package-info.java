/** Runs a WAR by itself, from inside that very archive. */
package jollycrate.standalone;
