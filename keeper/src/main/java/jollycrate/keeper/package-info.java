/** The small program that keeps one other program running and rotates its log. */
package jollycrate.keeper;
