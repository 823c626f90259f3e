package org.youngtally.service.web;

import java.io.IOException;

/** A body of which no more is read. */
public final class BodyRefused extends IOException {
    private static final long serialVersionUID = 1L;
    private final transient Problem problem;

    public BodyRefused(Problem problem) {
        super(problem.getMessage());
        this.problem = problem;
    }

    Problem problem() {
        return problem;
    }
}
