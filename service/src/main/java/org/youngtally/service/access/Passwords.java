package org.youngtally.service.access;

import com.nulabinc.zxcvbn.Strength;
import com.nulabinc.zxcvbn.Zxcvbn;
import java.nio.charset.StandardCharsets;
import java.security.SecureRandom;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.springframework.security.crypto.bcrypt.BCryptPasswordEncoder;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Component;
import org.youngtally.core.access.Account;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;

/**
 * Passwords, by bcrypt. Each sum takes a core for some fifty milliseconds and strangers can ask for it: it is done as
 * {@link org.youngtally.service.work.HeavyWork}.
 */
@Component
public final class Passwords {
    /** The symbols of a random password: none that look alike. */
    private static final String SYMBOLS = "abcdefghjkmnpqrstuvwxyz23456789";

    private static final int GROUPS = 4;
    private static final int IN_A_GROUP = 5;
    private static final int SHORTEST = 10;
    /** More than this bcrypt does not look at. */
    private static final int MOST_BYTES = 72;
    /** Of 4: guessed in 10^8 tries or more. */
    private static final int LEAST_SCORE = 3;

    private static final Zxcvbn ESTIMATOR = new Zxcvbn();
    private static final SecureRandom RANDOM = new SecureRandom();

    private final PasswordEncoder bcrypt = new BCryptPasswordEncoder();
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
        bounded(field, password);
        return bcrypt.encode(password);
    }

    private static void bounded(String field, String password) {
        int bytes = password.getBytes(StandardCharsets.UTF_8).length;
        if (password.length() < SHORTEST || bytes > MOST_BYTES)
            throw new Problem(Type.MALFORMED, "The password is too " + (bytes > MOST_BYTES ? "long" : "short") + ".")
                    .field(field, SHORTEST + " symbols or more, up to " + MOST_BYTES + " bytes");
    }

    /**
     * Refuses a password that somebody has chosen and that is guessed in fewer than some hundred million tries.
     *
     * @throws Problem that says why it is weak
     */
    public static void refuseWeak(String field, String password, Account account) {
        bounded(field, password);
        Strength strength = ESTIMATOR.measure(password, List.of(account.name(), account.title(), "young tally"));
        if (strength.getScore() >= LEAST_SCORE) return;
        String why = strength.getFeedback().getWarning(Locale.ENGLISH);
        throw new Problem(
                        Type.MALFORMED,
                        "The password is easily guessed"
                                + (why.isEmpty() ? "." : ": " + why.replaceFirst("\\.$", "") + "."))
                .field(field, "a longer one, such as four unrelated words");
    }

    /** Whether this is the account's password; takes as long for an account that does not exist. */
    public boolean matches(String password, Optional<Account> account) {
        Optional<String> hash = account.filter(known -> !known.closed()).flatMap(Account::password);
        if (password.getBytes(StandardCharsets.UTF_8).length > MOST_BYTES) return false;
        return bcrypt.matches(password, hash.orElse(nobody)) && hash.isPresent();
    }
}
