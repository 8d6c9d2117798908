/** References that people write in place of secrets, and what they resolve to. */
package jollycrate.secret;
