/** A real browser without a window, driven over its open protocol. */
package jollycrate.browser;
