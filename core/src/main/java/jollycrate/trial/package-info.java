/** Deliveries in passing, which leave nothing behind: the unpacked run and the trial of shapes. */
package jollycrate.trial;
