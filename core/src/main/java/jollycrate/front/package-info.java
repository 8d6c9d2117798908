/** The front server that sends requests to a program. */
package jollycrate.front;
