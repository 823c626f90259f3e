package org.youngtally.service.access;

import java.nio.charset.StandardCharsets;
import java.security.SecureRandom;
import java.util.Optional;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import java.util.function.Supplier;
import org.springframework.security.crypto.bcrypt.BCryptPasswordEncoder;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Component;
import org.youngtally.core.access.Account;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;

/** Passwords, by bcrypt. */
@Component
public final class Passwords {
    /** The symbols of a random password: none that look alike. */
    private static final String SYMBOLS = "abcdefghjkmnpqrstuvwxyz23456789";

    private static final int GROUPS = 4;
    private static final int IN_A_GROUP = 5;
    private static final int SHORTEST = 10;
    /** More than this bcrypt does not look at. */
    private static final int MOST_BYTES = 72;
    /**
     * How many are worked out at a time: each takes a core for some fifty milliseconds, and strangers can ask for it.
     */
    private static final int AT_A_TIME = 2;

    private static final int LONGEST_WAIT_SECONDS = 10;
    private static final SecureRandom RANDOM = new SecureRandom();

    private final PasswordEncoder bcrypt = new BCryptPasswordEncoder();
    private final Semaphore places = new Semaphore(AT_A_TIME, true);
    /** What a wrong name is held against, so that it takes as long as a wrong password. */
    private final String nobody = bcrypt.encode(random());

    /** Some 99 bits, in groups that can be read out. */
    public static String random() {
        var text = new StringBuilder();
        for (int i = 0; i < GROUPS * IN_A_GROUP; i++)
            text.append(i > 0 && i % IN_A_GROUP == 0 ? "-" : "")
                    .append(SYMBOLS.charAt(RANDOM.nextInt(SYMBOLS.length())));
        return text.toString();
    }

    /**
     * What is kept of a password.
     *
     * @throws Problem for one that is too short or too long
     */
    public String kept(String field, String password) {
        int bytes = password.getBytes(StandardCharsets.UTF_8).length;
        if (password.length() < SHORTEST || bytes > MOST_BYTES)
            throw new Problem(Type.MALFORMED, "The password is too " + (bytes > MOST_BYTES ? "long" : "short") + ".")
                    .field(field, SHORTEST + " symbols or more, up to " + MOST_BYTES + " bytes");
        return alone(() -> bcrypt.encode(password));
    }

    /** Whether this is the account's password; takes as long for an account that does not exist. */
    public boolean matches(String password, Optional<Account> account) {
        Optional<String> hash = account.filter(known -> !known.closed()).flatMap(Account::password);
        if (password.getBytes(StandardCharsets.UTF_8).length > MOST_BYTES) return false;
        return alone(() -> bcrypt.matches(password, hash.orElse(nobody))) && hash.isPresent();
    }

    private <T> T alone(Supplier<T> sum) {
        try {
            if (!places.tryAcquire(LONGEST_WAIT_SECONDS, TimeUnit.SECONDS))
                throw new Problem(Type.BUSY, "Too many passwords are being looked at.");
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new Problem(Type.BUSY, "The service is ending.");
        }
        try {
            return sum.get();
        } finally {
            places.release();
        }
    }
}
