/** A small stand-in for another machine, to learn and to try on. */
package jollycrate.standin;
