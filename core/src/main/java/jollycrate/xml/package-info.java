/** Reading hostile XML with its exact positions, and splicing into it. */
package jollycrate.xml;
