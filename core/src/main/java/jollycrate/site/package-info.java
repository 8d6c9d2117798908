/** Described servers as places to act on: kinds, installations, folders of their own. */
package jollycrate.site;
