/** The same for servers of the jakarta.servlet API. */
package jollycrate.pages.jakarta;
