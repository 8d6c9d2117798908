package jollycrate.artifact;

/**
 * An attribute with the position of its value in the text.
 *
 * @param value with references resolved
 * @param valueStart first character after the opening quote
 * @param valueEnd the closing quote
 */
public record XmlAttribute(String name, String value, int valueStart, int valueEnd) {}
