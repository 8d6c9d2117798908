/** The facade that the commands call. */
package jollycrate;
