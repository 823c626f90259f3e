package org.youngtally.service.access;

import java.lang.annotation.ElementType;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;
import org.youngtally.core.access.Right;

/** The right that an operation of the interface needs, and where. */
@Retention(RetentionPolicy.RUNTIME)
@Target(ElementType.METHOD)
public @interface Needs {
    /** Any one of them, where the request decides which. */
    Right[] value();

    At at();

    /** Where the right is needed. */
    enum At {
        /** On the series that the address names; for a unit or a kind where the request names one. */
        SERIES,
        /** On the series, unit or kind that the request names, which the operation looks at itself. */
        REQUEST,
        /** For all. */
        ALL,
        /** Somewhere: the operation answers with what the account may see, and no more. */
        SOMEWHERE
    }
}
