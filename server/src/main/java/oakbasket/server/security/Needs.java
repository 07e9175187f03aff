package oakbasket.server.security;

import java.lang.annotation.Documented;
import java.lang.annotation.ElementType;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;
import oakbasket.core.team.Permission;

/**
 * What an operation of the desk needs. On a class it holds for every operation that is not a GET; a GET needs {@link Permission#SEE} unless it says otherwise itself.
 * Operations without it are for whoever is outside where they say {@link FromOutside}, and for nobody where they do not.
 */
@Documented
@Retention(RetentionPolicy.RUNTIME)
@Target({ElementType.TYPE, ElementType.METHOD})
public @interface Needs {

    /** What it needs. */
    Permission value();
}
