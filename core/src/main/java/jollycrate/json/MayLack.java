package jollycrate.json;

import java.lang.annotation.ElementType;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;

/**
 * A part of a record that lines of earlier versions lack: there it is read as an empty text, 0, an
 * empty list or an absent value. Anything else that a line lacks makes it unreadable.
 */
@Retention(RetentionPolicy.RUNTIME)
@Target(ElementType.RECORD_COMPONENT)
public @interface MayLack {}
