/** How long browsers may keep pages that were delivered. */
package jollycrate.pages;
