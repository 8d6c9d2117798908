/** The demonstration on the sample project. */
package jollycrate.cli.demo;
