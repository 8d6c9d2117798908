package jollycrate.host;

import java.util.List;

/**
 * What a Java process is asked about itself (JMX 1.4).
 *
 * @param pattern of the names of the MBeans that are meant
 * @param attributes that are wanted of each
 */
public record Question(String pattern, List<String> attributes) {}
