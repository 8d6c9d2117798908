/** Requests with what is expected of their answers. */
package jollycrate.check;
