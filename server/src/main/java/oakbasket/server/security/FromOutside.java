package oakbasket.server.security;

import java.lang.annotation.Documented;
import java.lang.annotation.ElementType;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;

/**
 * A door for people who are not signed in: what comes through it is done for the office itself, and the operation looks itself at what the caller brings along, such as a link. A door that says neither this nor {@link Needs}
 * works for nobody, who sees and changes nothing. What a method {@link Needs} goes before what its class says here.
 */
@Documented
@Retention(RetentionPolicy.RUNTIME)
@Target({ElementType.TYPE, ElementType.METHOD})
public @interface FromOutside {
}
