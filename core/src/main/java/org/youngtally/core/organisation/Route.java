package org.youngtally.core.organisation;

/**
 * The rule that says which series numbers records of a kind in a unit and below.
 *
 * @param into the field of the record that the identifier goes into
 * @param version from 1, one more with each change
 */
public record Route(String kind, String unit, Condition when, String series, String into, int version) {
    /** The field that an identifier goes into where a route names none. */
    public static final String USUAL_FIELD = "number";

    /** Where it stands: kind, unit and condition tell one route from another. */
    public String key() {
        return key(kind, unit, when);
    }

    static String key(String kind, String unit, Condition when) {
        return kind + " in " + unit + (when.isAlways() ? "" : " when " + when);
    }

    public Route withVersion(int newVersion) {
        return new Route(kind, unit, when, series, into, newVersion);
    }
}
