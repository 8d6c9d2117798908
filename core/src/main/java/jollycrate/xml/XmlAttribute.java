package jollycrate.xml;

/**
 * An attribute.
 *
 * @param name as written, with its prefix
 * @param value with references resolved
 */
public record XmlAttribute(String name, String value) {}
