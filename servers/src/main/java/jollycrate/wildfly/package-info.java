/** WildFly: an archive that carries its descriptors, in the folder that the server looks at. */
package jollycrate.wildfly;
