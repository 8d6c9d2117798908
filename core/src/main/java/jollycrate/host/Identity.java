package jollycrate.host;

/**
 * One process and no other: process ids come round again, and a start counted from another boot
 * means nothing.
 *
 * @param boot the kernel's id of this boot
 * @param ticks start time since boot in clock ticks, as the kernel tells it
 */
public record Identity(String boot, long pid, long ticks) {}
