package org.youngtally.ledger;

import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Stream;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.LabelStep;

/**
 * Whether the date that the clock says at a start can be believed. A clock that is wrong by more than a day picks wrong
 * ranges, restarts counters and lets holds lapse, which nothing takes back; an administrator who looks at the date can
 * tell it from a service that was switched off for a while.
 */
final class DateCheck {
    private static final Duration DAY = Duration.ofDays(1);
    private static final DateTimeFormatter MINUTES = DateTimeFormatter.ofPattern("uuuu-MM-dd HH:mm", Locale.ROOT);

    private DateCheck() {}

    /**
     * @param lastSeen when the ledger was last known to run; absent where that was not kept
     * @param newest when its newest entry was made
     * @return what an administrator has to confirm; absent where the date is believed
     */
    static Optional<String> question(Instant now, Optional<Instant> lastSeen, Optional<Instant> newest, ZoneId zone) {
        Optional<Instant> last = lastSeen.or(() -> newest);
        Optional<Instant> later =
                Stream.concat(lastSeen.stream(), newest.stream()).max(Instant::compareTo);
        boolean back = later.filter(each -> now.isBefore(each.minus(DAY))).isPresent();
        boolean ahead = last.filter(each -> now.isAfter(each.plus(DAY))).isPresent();
        if (!back && !ahead) return Optional.empty();
        String today = now.atZone(zone).toLocalDate().toString();
        return Optional.of("the clock says " + text(now, zone) + ", and the ledger last ran at "
                + text((back ? later : last).orElseThrow(), zone) + " (" + zone + "). If it is " + today
                + " today, confirm it: ./youngtally clock confirm " + today
                + ". If it is not, set the clock and start the service again");
    }

    private static String text(Instant instant, ZoneId zone) {
        return MINUTES.format(instant.atZone(zone));
    }

    /** Whether an act goes by the date. What is defined, and who may do what, does not. */
    static boolean matters(Act<?> act) {
        return switch (act) {
            case Act.Define define -> false;
            case Act.RemoveRoute remove -> false;
            case Act.ChangeAccount change -> false;
            case Act.Allocate allocate -> true;
            case Act.Settle settle -> true;
            case Act.Lapse lapse -> true;
            case Act.Split split -> true;
            case Act.Close close -> true;
            case Act.Reopen reopen -> true;
            case Act.SaveRecord save -> true;
            case Act.ChangeRecord change -> true;
            case Act.FillTable fill -> true;
            case Act.Continue on -> true;
            case Act.StateHighest stated -> true;
            case Act.Resume resume -> false;
            case Act.CarryOut carry -> true;
            case Act.NumberRows rows -> true;
            case Act.NumberDocument number -> true;
            case Act.PrintLabels print -> true;
            case Act.ChangeLabels change -> change.step() instanceof LabelStep.Spoil;
        };
    }
}
