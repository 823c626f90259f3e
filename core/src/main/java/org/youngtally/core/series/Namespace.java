package org.youngtally.core.series;

/**
 * The set within which identifiers are unique.
 *
 * @param repeats whether it holds marks that come round again, and nothing else; those need not be unique
 * @param version from 1, one more with each change; 0 for one that was never defined and is as namespaces usually are
 */
public record Namespace(String key, String title, boolean repeats, int version) {
    public static Namespace usual(String key) {
        return new Namespace(key, key, false, 0);
    }

    public Namespace withVersion(int newVersion) {
        return new Namespace(key, title, repeats, newVersion);
    }
}
