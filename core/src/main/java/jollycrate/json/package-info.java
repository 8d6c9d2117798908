/** JSON text as the tool writes and reads it. */
package jollycrate.json;
