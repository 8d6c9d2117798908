/** From a project to an archive: its build, then what its description packs. */
package jollycrate.build;
