/** Starting and stopping the process of a server. */
package jollycrate.control;
