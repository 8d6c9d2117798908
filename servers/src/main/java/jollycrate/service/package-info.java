/** The server kind of a program that runs by itself, kept by a keeper. */
package jollycrate.service;
