package org.youngtally.core.access;

/** That an account may do something somewhere. */
public record Grant(Right right, Scope scope) {
    @Override
    public String toString() {
        return right.word() + " for " + scope;
    }
}
