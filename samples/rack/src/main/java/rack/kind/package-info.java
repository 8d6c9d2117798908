/** How applications are delivered to a rack. */
package rack.kind;
