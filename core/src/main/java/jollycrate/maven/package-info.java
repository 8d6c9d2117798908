/**
 * Files of Maven repositories, found as the user's own Maven would find them, without running it.
 */
package jollycrate.maven;
