/** Another machine, reached over SSH: a shell there, and nothing that has to be installed. */
package jollycrate.ssh;
