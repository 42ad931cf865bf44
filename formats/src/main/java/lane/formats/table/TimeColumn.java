package lane.formats.table;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import lane.base.Parallel;
import org.jspecify.annotations.Nullable;

/**
 * A column of dates, of times of the day or of both, as loggers write them: counted in seconds from the midnight before its first
 * row, so that logs of one day that began at different times stand side by side.
 *
 * @param seconds one a row; NaN where none stands there
 * @param others rows with something else, of which {@code firstOther} is the first
 * @param said what was assumed, a sentence
 */
record TimeColumn(double[] seconds, int others, int firstOther, String said) {
    private static final String DATE = "(?:(\\d{4})([-/.])(\\d{1,2})\\2(\\d{1,2})"
            + "|(\\d{1,2})([-/.])(\\d{1,2})\\6(\\d{4}|(?<=\\.)\\d{2})"
            + "|(\\d{1,2})[- ](\\p{L}{3})\\p{L}*[- ](\\d{4}))";
    private static final String TIME =
            "(\\d{1,4}):(\\d{2})(?::(\\d{2})(?:[.,](\\d{1,9}))?)?(?:[ \u202f]?([AaPp])\\.?[Mm]\\.?)?";
    private static final String ZONE = " ?(Z|UTC|GMT|[-+]\\d{2}(?::?\\d{2})?)";
    private static final Pattern STAMP =
            Pattern.compile("(?:" + DATE + "(?:(?:T|[ ,;]+)(?=\\d{1,2}:)|$))?(?:" + TIME + "(?:" + ZONE + ")?)?");
    private static final List<String> MONTHS =
            List.of("jan", "feb", "mar", "apr", "may", "jun", "jul", "aug", "sep", "oct", "nov", "dec");

    /** Letters of the longest. */
    static final int LONGEST = 40;

    /** What a sentence has of where it begins. */
    static final String COUNTED = "counted from ";

    private static final long SECOND = 1_000_000_000L;
    private static final long DAY = 86_400 * SECOND;
    /** Of so many cells with something in them, all but one must be times. */
    private static final int MOSTLY = 10;

    private enum Order {
        DAY_FIRST("the day before the month"),
        MONTH_FIRST("the month before the day");

        private final String words;

        Order(String words) {
            this.words = words;
        }
    }

    /**
     * A cell.
     *
     * @param year 0 where it has no date
     * @param first the month where {@code sure}, else the first of day and month
     * @param nanos of the day; -1 where it has no time
     * @param zone how far its clock is ahead, in nanoseconds; 0 where it does not say
     * @param brief whether its time has no seconds and could be another thing
     */
    private record Stamp(int year, int first, int second, boolean sure, long nanos, long zone, boolean brief) {
        boolean dated() {
            return year > 0;
        }

        boolean timed() {
            return nanos >= 0;
        }

        /** Days since 1970; null for no day of the calendar. */
        @Nullable
        Long day(Order order) {
            boolean month = sure || order == Order.MONTH_FIRST;
            try {
                return LocalDate.of(year, month ? first : second, month ? second : first)
                        .toEpochDay();
            } catch (DateTimeException e) {
                return null;
            }
        }
    }

    /** Cells of a column as dates and times; null where a cell is neither. */
    record Stamps(List<String> cells, @Nullable Stamp[] each) {
        static Stamps of(List<String> cells) {
            var each = new @Nullable Stamp[cells.size()];
            Parallel.forBlocks(each.length, 4096, (block, from, to) -> {
                for (int i = from; i < to; i++) {
                    each[i] = stamp(cells.get(i));
                }
            });
            return new Stamps(cells, each);
        }

        private List<Stamp> known() {
            List<Stamp> out = new ArrayList<>();
            for (Stamp s : each) {
                if (s != null) {
                    out.add(s);
                }
            }
            return out;
        }

        /** Whether these are dates whose day and month cannot be told apart. */
        boolean unclear() {
            List<Stamp> dates = known().stream().filter(Stamp::dated).toList();
            return !dates.isEmpty()
                    && dates.size() * MOSTLY > each.length * (MOSTLY - 1)
                    && orders(dates).size() > 1;
        }

        /** Whether they are dates without times. */
        boolean datesAlone() {
            List<Stamp> known = known();
            return !known.isEmpty() && known.stream().allMatch(s -> s.dated() && !s.timed());
        }

        /** Whether they are times of the day without dates. */
        boolean timesAlone() {
            List<Stamp> known = known();
            return !known.isEmpty() && known.stream().allMatch(s -> !s.dated() && s.timed() && s.nanos < DAY);
        }

        /** Times of these dates. */
        Stamps with(Stamps times) {
            var out = new @Nullable Stamp[each.length];
            for (int i = 0; i < out.length; i++) {
                Stamp time = times.each[i];
                out[i] = time == null ? null : together(each[i], time);
            }
            return new Stamps(times.cells, out);
        }
    }

    /**
     * @param name of the column
     * @param of its cells, one a row
     * @param as what stands for a missing value
     * @return empty where it is no such column, or its dates may mean one day or another
     */
    static Optional<TimeColumn> of(String name, Stamps of, Cells as) {
        @Nullable Stamp[] stamps = of.each;
        int others = 0;
        int firstOther = -1;
        int known = 0;
        for (int i = 0; i < stamps.length; i++) {
            if (stamps[i] != null) {
                known++;
            } else if (as.word(of.cells.get(i))) {
                firstOther = others++ == 0 ? i : firstOther;
            }
        }
        if (known == 0 || others * MOSTLY > known + others) {
            return Optional.empty();
        }
        List<Stamp> all = of.known();
        boolean dated = all.getFirst().dated();
        // Half of them without a date, or minutes that may be seconds, are no times to be sure of.
        if (all.stream().anyMatch(s -> s.dated() != dated)
                || !dated && all.stream().anyMatch(Stamp::brief)) {
            return Optional.empty();
        }
        if (!dated) {
            return Optional.of(ofDay(name, stamps, others, firstOther));
        }
        List<Order> orders = orders(all);
        if (orders.size() != 1) {
            return Optional.empty();
        }
        Order order = orders.getFirst();
        double[] seconds = seconds(stamps, order);
        boolean unsure = all.stream().anyMatch(s -> !s.sure());
        boolean any = all.stream().anyMatch(Stamp::timed);
        Long day = all.getFirst().day(order);
        return Optional.of(new TimeColumn(
                seconds,
                others,
                firstOther,
                "\"" + name + "\" holds " + (any ? "dates and times" : "dates") + ", " + COUNTED
                        + LocalDate.ofEpochDay(Objects.requireNonNull(day)) + " 00:00"
                        + (unsure ? ", " + order.words : "")));
    }

    /** Whether a cell is a date or a time by itself. */
    static boolean is(String cell) {
        return stamp(cell) != null;
    }

    private static @Nullable Stamp together(@Nullable Stamp date, Stamp time) {
        return date == null || !date.dated() || time.dated()
                ? null
                : new Stamp(date.year, date.first, date.second, date.sure, time.nanos, time.zone, false);
    }

    /** Which of day and month can come first: what is no day rules one out, and so do leaps that the other does not make. */
    private static List<Order> orders(List<Stamp> all) {
        if (all.stream().allMatch(Stamp::sure)) {
            return List.of(Order.DAY_FIRST);
        }
        List<Order> may = new ArrayList<>();
        for (Order o : Order.values()) {
            if (all.stream().allMatch(s -> s.day(o) != null)) {
                may.add(o);
            }
        }
        boolean oneDay = all.stream()
                .allMatch(s -> s.year == all.getFirst().year
                        && s.first == all.getFirst().first
                        && s.second == all.getFirst().second);
        if (may.size() == 2 && oneDay) {
            // Only the day that it is said to begin with is another one.
            return List.of(Order.DAY_FIRST);
        }
        if (may.size() == 2) {
            long one = leap(all, Order.DAY_FIRST);
            long other = leap(all, Order.MONTH_FIRST);
            // A log of a few days goes from day to day by one order, and from month to month by the other.
            return one * MOSTLY <= other
                    ? List.of(Order.DAY_FIRST)
                    : other * MOSTLY <= one ? List.of(Order.MONTH_FIRST) : may;
        }
        return may;
    }

    /** The most days that one row is from the one before. */
    private static long leap(List<Stamp> all, Order order) {
        long most = 0;
        for (int i = 1; i < all.size(); i++) {
            Long a = all.get(i - 1).day(order);
            Long b = all.get(i).day(order);
            most = Math.max(most, Math.abs(Objects.requireNonNull(b) - Objects.requireNonNull(a)));
        }
        return most;
    }

    private static double[] seconds(@Nullable Stamp[] stamps, Order order) {
        double[] out = new double[stamps.length];
        long begin = Long.MIN_VALUE;
        for (int i = 0; i < out.length; i++) {
            Stamp s = stamps[i];
            if (s == null) {
                out[i] = Double.NaN;
                continue;
            }
            long midnight = Objects.requireNonNull(s.day(order)) * 86_400 - s.zone / SECOND;
            begin = begin == Long.MIN_VALUE ? midnight : begin;
            out[i] = ((midnight - begin) * SECOND + Math.max(0, s.nanos)) / (double) SECOND;
        }
        return out;
    }

    /** Times of the day; where they fall back by more than half a day, the next one has begun. */
    private static TimeColumn ofDay(String name, @Nullable Stamp[] stamps, int others, int firstOther) {
        boolean spans =
                Arrays.stream(stamps).filter(Objects::nonNull).anyMatch(s -> Objects.requireNonNull(s).nanos >= DAY);
        double[] out = new double[stamps.length];
        long days = 0;
        long before = Long.MIN_VALUE / 2;
        for (int i = 0; i < out.length; i++) {
            Stamp s = stamps[i];
            if (s == null) {
                out[i] = Double.NaN;
                continue;
            }
            days += !spans && s.nanos < before - DAY / 2 ? 1 : 0;
            before = s.nanos;
            out[i] = (days * DAY + s.nanos) / (double) SECOND;
        }
        return new TimeColumn(
                out,
                others,
                firstOther,
                "\"" + name + "\" holds " + (spans ? "hours, minutes and seconds" : "times of the day")
                        + (spans ? "" : ", " + COUNTED + "midnight")
                        + (days > 0
                                ? "; where they fall back a new day was taken to begin, " + days
                                        + (days == 1 ? " time" : " times")
                                : ""));
    }

    private static @Nullable Stamp stamp(String cell) {
        if (cell.length() < 6 || cell.length() > LONGEST || !Character.isDigit(cell.charAt(0))) {
            return null;
        }
        Matcher m = STAMP.matcher(cell);
        if (!m.matches()) {
            return null;
        }
        int year = 0;
        int first = 0;
        int second = 0;
        boolean sure = true;
        if (m.group(1) != null) {
            year = number(m.group(1));
            first = number(m.group(3));
            second = number(m.group(4));
        } else if (m.group(5) != null) {
            year = m.group(8).length() == 2 ? 2000 + number(m.group(8)) : number(m.group(8));
            // Between points the day comes first.
            sure = m.group(6).equals(".");
            first = number(m.group(sure ? 7 : 5));
            second = number(m.group(sure ? 5 : 7));
        } else if (m.group(9) != null) {
            year = number(m.group(11));
            first = 1 + MONTHS.indexOf(m.group(10).toLowerCase(Locale.ROOT));
            second = number(m.group(9));
        }
        if (year > 0 && sure && new Stamp(year, first, second, true, -1, 0, false).day(Order.MONTH_FIRST) == null) {
            return null;
        }
        if (m.group(12) == null) {
            return year == 0 ? null : new Stamp(year, first, second, sure, -1, 0, false);
        }
        long nanos = nanos(m, year > 0);
        boolean brief = m.group(14) == null && m.group(16) == null;
        return nanos < 0 ? null : new Stamp(year, first, second, sure, nanos, zone(m.group(17)), brief);
    }

    private static int number(String digits) {
        return Integer.parseInt(digits);
    }

    /** Of the day; -1 for no time of a day. */
    private static long nanos(Matcher m, boolean dated) {
        int hour = number(m.group(12));
        int minute = number(m.group(13));
        int second = m.group(14) == null ? 0 : number(m.group(14));
        String half = m.group(16);
        if (half != null) {
            if (hour < 1 || hour > 12) {
                return -1;
            }
            hour = hour % 12 + (half.equalsIgnoreCase("p") ? 12 : 0);
        }
        if (minute > 59 || second > 60 || dated && hour > 24) {
            return -1;
        }
        String rest = m.group(15) == null ? "" : m.group(15);
        long fraction = Long.parseLong((rest + "000000000").substring(0, 9));
        return ((hour * 60L + minute) * 60 + second) * SECOND + fraction;
    }

    private static long zone(@Nullable String said) {
        if (said == null || !(said.startsWith("+") || said.startsWith("-"))) {
            return 0;
        }
        String digits = said.substring(1).replace(":", "");
        long minutes = number(digits.substring(0, 2)) * 60L + (digits.length() > 2 ? number(digits.substring(2)) : 0);
        return (said.startsWith("-") ? -minutes : minutes) * 60 * SECOND;
    }
}
