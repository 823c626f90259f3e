package org.youngtally.core.act;

/**
 * A file of definitions as an administrator wrote it, kept with its comments so that it can be given back.
 *
 * @param name the file's own name, without a folder
 */
public record KeptFile(String name, String text) {}
