package org.youngtally.documents.program;

/**
 * Where a mark is in a program.
 *
 * @param at the place of its first byte
 * @param mark its place in the list of marks
 * @param line from 1
 * @param lineAt the place of the first byte of the line
 * @param piece from 1; 0 in front of the first and between sections
 */
record Occurrence(long at, int mark, long line, long lineAt, int piece) {}
