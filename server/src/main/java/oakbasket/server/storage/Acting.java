package oakbasket.server.storage;

import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/**
 * For whom a thread works: for somebody of the office, who may see and change only some of what there is; or for the office itself (its senders, its letters, its own repairs), which sees everything. A thread that said neither
 * works for nobody: it sees nothing that not all may see, and changes nothing. What this says is kept by {@link Transactions} and {@link SeenRows}, below all services, so that none of them can forget it.
 */
public final class Acting {

    /**
     * Somebody for whom work is done.
     *
     * @param account the number of their account
     * @param changes whether they may change more than what is only their own
     * @param restricted whether there are rounds that they do not see
     */
    public record Who(long account, boolean changes, boolean restricted) {
    }

    /** Stands for the office itself. */
    private static final Who OFFICE = new Who(0, true, false);
    private static final ThreadLocal<@Nullable Who> WHO = new ThreadLocal<>();

    private Acting() {
    }

    /** Who it is; null for the office itself and for nobody. */
    public static @Nullable Who who() {
        Who who = WHO.get();
        return OFFICE.equals(who) ? null : who;
    }

    /** Whether the thread works for nobody. */
    public static boolean nobody() {
        return WHO.get() == null;
    }

    /** Whether everything may be seen. */
    static boolean everything() {
        Who who = WHO.get();
        return who != null && !who.restricted();
    }

    /** Whether there are rounds that must not be seen. */
    public static boolean restricted() {
        return !everything();
    }

    /**
     * Whether it is somebody who only reads. They get no address by which others send or take files: with it they could do as those.
     */
    public static boolean readsOnly() {
        Who who = WHO.get();
        return who == null || !who.changes();
    }

    /** From now on this thread works for somebody; to be ended with {@link #end()}. */
    public static void begin(Who who) {
        WHO.set(who);
    }

    /** From now on this thread works for the office itself; to be ended with {@link #end()}. */
    public static void beginOffice() {
        WHO.set(OFFICE);
    }

    /** From now on this thread works for nobody. */
    public static void end() {
        WHO.remove();
    }

    /** Does something for somebody. */
    public static <T> T as(Who who, Supplier<T> work) {
        Who before = WHO.get();
        WHO.set(who);
        try {
            return work.get();
        } finally {
            restore(before);
        }
    }

    private static void restore(@Nullable Who before) {
        if (before == null) {
            WHO.remove();
        } else {
            WHO.set(before);
        }
    }

    /** Does something for the office itself, such as reading what is remembered for everybody. */
    public static <T> T asOffice(Supplier<T> work) {
        return as(OFFICE, work);
    }

    /** Work without a result, that may fail in its own way. */
    @FunctionalInterface
    public interface Work<E extends Exception> {
        /** Does it. */
        void run() throws E;
    }

    /** The same for work without a result, such as what goes on by itself and can be asked for too. */
    public static <E extends Exception> void officeDoes(Work<E> work) throws E {
        Who before = WHO.get();
        WHO.set(OFFICE);
        try {
            work.run();
        } finally {
            restore(before);
        }
    }

    /** What another thread does later for the office itself. */
    public static Runnable office(Runnable work) {
        return () -> officeDoes(work::run);
    }

    /** Writes what is only the own of whoever is signed in, which everybody may. */
    public static <T> T own(Supplier<T> work) {
        Who who = WHO.get();
        return who == null ? work.get() : as(new Who(who.account(), true, who.restricted()), work);
    }
}
