package org.youngtally.core.access;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/**
 * A person or program that acts here.
 *
 * @param password what the password was turned into; absent for one who cannot sign in with one
 * @param closed whether it may do nothing any more
 * @param tokens those that were issued, the ones that ended lately too
 * @param version from 1, one more with each change
 */
public record Account(
        String name,
        String title,
        Sort sort,
        Optional<String> password,
        boolean closed,
        List<Grant> grants,
        List<Token> tokens,
        int version) {
    public Account {
        grants = List.copyOf(grants);
        tokens = List.copyOf(tokens);
    }

    /** Who acts. A program has no password. */
    public enum Sort {
        PERSON("person"),
        PROGRAM("program");

        private final String word;

        Sort(String word) {
            this.word = word;
        }

        public String word() {
            return word;
        }

        public static Optional<Sort> of(String word) {
            return Arrays.stream(values())
                    .filter(sort -> sort.word.equals(word))
                    .findFirst();
        }
    }

    public Optional<Token> token(String id) {
        return tokens.stream().filter(token -> token.id().equals(id)).findFirst();
    }

    Account withPassword(String hash) {
        return new Account(name, title, sort, Optional.of(hash), closed, grants, tokens, version + 1);
    }

    Account withClosed(boolean nowClosed) {
        return new Account(name, title, sort, password, nowClosed, grants, tokens, version + 1);
    }

    Account withGrants(List<Grant> now) {
        return new Account(name, title, sort, password, closed, now, tokens, version + 1);
    }

    Account withTokens(List<Token> now) {
        return new Account(name, title, sort, password, closed, grants, now, version + 1);
    }
}
