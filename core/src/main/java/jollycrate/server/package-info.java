/** The interface of server kinds: only what a kind writes or reads. */
package jollycrate.server;
