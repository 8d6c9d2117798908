/** Stack traces in logs, and the causes known from them. */
package jollycrate.trace;
