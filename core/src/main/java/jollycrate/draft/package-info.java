/** A first description, made from what stands in a project's folder. */
package jollycrate.draft;
