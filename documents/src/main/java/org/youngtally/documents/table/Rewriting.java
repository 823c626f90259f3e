package org.youngtally.documents.table;

import java.util.Optional;
import java.util.function.LongFunction;

/**
 * What of a table is written anew.
 *
 * @param column of the cells that change, from 0
 * @param texts what the cell of a line holds from now on; absent where it stays
 * @param oldColumn the name of a further column, behind the last, for what the changed cells held
 */
public record Rewriting(int column, LongFunction<Optional<String>> texts, Optional<String> oldColumn) {}
