package org.mellowclass.app.people;

import java.lang.annotation.ElementType;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;

/** What only somebody may do who has entered their password lately, see {@link Proof}: {@link AsksAgain} asks others. */
@Target(ElementType.METHOD)
@Retention(RetentionPolicy.RUNTIME)
public @interface ProvenLately {
}
