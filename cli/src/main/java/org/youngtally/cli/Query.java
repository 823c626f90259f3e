package org.youngtally.cli;

/** The parameters of a request about a table. */
final class Query {
    private final StringBuilder text;

    /** @param name of the table's file */
    Query(String name) {
        text = new StringBuilder("name=" + Service.escape(name));
    }

    /** One more parameter, unless it is absent. */
    Query with(String name, String value) {
        if (value != null) text.append('&').append(name).append('=').append(Service.escape(value));
        return this;
    }

    @Override
    public String toString() {
        return text.toString();
    }
}
