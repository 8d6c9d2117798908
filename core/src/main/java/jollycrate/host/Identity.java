package jollycrate.host;

/**
 * One process and no other: process ids come round again, are counted anew in each name space
 * (pid_namespaces(7)), and a start counted from another boot means nothing.
 *
 * @param boot the kernel's id of this boot
 * @param space name space that counts the id; empty when that is not known
 * @param ticks start time since boot in clock ticks, as the kernel tells it
 */
public record Identity(String boot, String space, long pid, long ticks) {}
