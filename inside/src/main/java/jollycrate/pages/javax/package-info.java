/** The same for servers of the javax.servlet API. */
package jollycrate.pages.javax;
