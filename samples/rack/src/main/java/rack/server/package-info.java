/** A server that shows the pages in archives. */
package rack.server;
