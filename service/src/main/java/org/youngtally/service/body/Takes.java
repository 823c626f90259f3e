package org.youngtally.service.body;

import java.lang.annotation.ElementType;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;

/** What an operation takes as its body; one that does not say takes JSON, of up to {@link BodyCheck#USUAL} bytes. */
@Target(ElementType.METHOD)
@Retention(RetentionPolicy.RUNTIME)
public @interface Takes {
    /** Of lists that somebody has put together. */
    long A_LIST = 1_000_000;

    /** How many bytes at most. */
    long value();

    /** Whether it is a file, of any type. */
    boolean file() default false;

    /** Whether it is written to disk as it comes, so that it takes no memory. */
    boolean toDisk() default false;
}
