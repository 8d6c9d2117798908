/** What servers that host web applications have in common. */
package jollycrate.hosting;
