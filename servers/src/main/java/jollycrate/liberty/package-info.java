/** Open Liberty: everything of an application in one piece of configuration. */
package jollycrate.liberty;
