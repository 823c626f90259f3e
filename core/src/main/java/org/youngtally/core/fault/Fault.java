package org.youngtally.core.fault;

/**
 * One thing wrong with a definition.
 *
 * @param path the property at fault, e.g. {@code ranges[0].last}; empty for the definition as a whole
 * @param problem what is wrong
 * @param accepted what would do
 */
public record Fault(String path, String problem, String accepted) {

    public static Fault at(String prefix, DefinitionException e) {
        return new Fault(prefix + e.property(), e.problem(), e.accepted());
    }

    @Override
    public String toString() {
        return (path.isEmpty() ? "" : path + ": ") + problem + "; " + accepted;
    }
}
