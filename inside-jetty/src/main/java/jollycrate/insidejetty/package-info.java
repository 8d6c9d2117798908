/** Classes of ours that a Jetty loads beside one application, and that end with it. */
package jollycrate.insidejetty;
