package org.youngtally.core.guess;

import java.util.List;
import java.util.Map;
import org.youngtally.core.codebook.Codebook;
import org.youngtally.core.series.Series;

/**
 * A definition that explains the numbers of a table.
 *
 * @param fields the column that each field is filled from, by the name of the field
 * @param books the codebooks of the fields, by key
 * @param read how many of the numbers it reads
 * @param numbers how many there are
 * @param leftOver the first lines whose numbers it does not read
 * @param apart what tells it apart from the one before it, which explains as much; empty where nothing has to
 */
public record Proposal(
        Series series,
        Map<String, String> fields,
        Map<String, Codebook> books,
        long read,
        long numbers,
        List<Long> leftOver,
        String apart) {}
