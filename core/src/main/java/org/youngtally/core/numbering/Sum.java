package org.youngtally.core.numbering;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import org.youngtally.core.pattern.PatternException;

/**
 * A small sum of attributes, such as {@code {division} * 250 + 1}: whole numbers, attributes in braces, +, -, * and
 * parentheses, times before plus.
 */
public final class Sum {
    private static final String ACCEPTED = "whole numbers, attributes in braces such as {division}, and + - * ( )";
    private static final int LONGEST = 200;
    private static final int DEEPEST = 20;

    private final String text;
    private final Term term;

    private Sum(String text, Term term) {
        this.text = text;
        this.term = term;
    }

    private sealed interface Term {
        record Whole(long value) implements Term {}

        record Attribute(String name) implements Term {}

        record Combined(char sign, Term left, Term right) implements Term {}
    }

    /** An attribute is no whole number, or the sum grows beyond 18 digits. */
    public static final class NoValue extends Exception {
        private static final long serialVersionUID = 1;

        private NoValue(String problem) {
            super(problem);
        }
    }

    /** @throws PatternException with the column of what is wrong */
    public static Sum parse(String text) {
        if (text.length() > LONGEST)
            throw new PatternException(LONGEST + 1, "the sum is longer than " + LONGEST + " symbols", "a shorter sum");
        var parser = new Parser(text);
        Term term = parser.sum(0);
        parser.end();
        return new Sum(text, term);
    }

    public static Sum of(long value) {
        return new Sum(String.valueOf(value), new Term.Whole(value));
    }

    /** The names of the attributes that it needs. */
    public Set<String> attributes() {
        var names = new TreeSet<String>();
        var left = new ArrayList<>(List.of(term));
        while (!left.isEmpty())
            switch (left.removeLast()) {
                case Term.Whole whole -> {}
                case Term.Attribute attribute -> names.add(attribute.name());
                case Term.Combined combined -> {
                    left.add(combined.left());
                    left.add(combined.right());
                }
            }
        return names;
    }

    /** @throws NoValue where an attribute is missing or no whole number, or the value is too large */
    public long of(Map<String, String> attributes) throws NoValue {
        return value(term, attributes);
    }

    private static long value(Term term, Map<String, String> attributes) throws NoValue {
        return switch (term) {
            case Term.Whole whole -> whole.value();
            case Term.Attribute attribute -> whole(attribute.name(), attributes.get(attribute.name()));
            case Term.Combined combined -> {
                long left = value(combined.left(), attributes);
                long right = value(combined.right(), attributes);
                try {
                    yield switch (combined.sign()) {
                        case '+' -> Math.addExact(left, right);
                        case '-' -> Math.subtractExact(left, right);
                        case '*' -> Math.multiplyExact(left, right);
                        default -> throw new IllegalStateException("a sum of " + combined.sign());
                    };
                } catch (ArithmeticException e) {
                    throw new NoValue("the sum is larger than can be counted");
                }
            }
        };
    }

    private static long whole(String name, String value) throws NoValue {
        if (value == null || value.isBlank()) throw new NoValue("{" + name + "} has no value");
        if (!value.strip().matches("[+-]?[0-9]{1,18}"))
            throw new NoValue("{" + name + "} is ‘" + value + "’, which is no whole number");
        return Long.parseLong(value.strip());
    }

    @Override
    public String toString() {
        return text;
    }

    private static final class Parser {
        private final String text;
        private int at;

        Parser(String text) {
            this.text = text;
        }

        Term sum(int depth) {
            if (depth > DEEPEST) throw wrong("parentheses are nested more than " + DEEPEST + " deep");
            Term sum = product(depth);
            for (char sign = peek(); sign == '+' || sign == '-'; sign = peek()) {
                at++;
                sum = new Term.Combined(sign, sum, product(depth));
            }
            return sum;
        }

        private Term product(int depth) {
            Term product = factor(depth);
            while (peek() == '*') {
                at++;
                product = new Term.Combined('*', product, factor(depth));
            }
            return product;
        }

        private Term factor(int depth) {
            char next = peek();
            if (next == '(') {
                at++;
                Term inner = sum(depth + 1);
                if (peek() != ')') throw wrong("a parenthesis is not closed");
                at++;
                return inner;
            }
            if (next == '{') return attribute();
            if (next < '0' || next > '9')
                throw wrong(next == 0 ? "the sum ends too soon" : "‘" + next + "’ is none of it");
            int from = at;
            while (at < text.length() && text.charAt(at) >= '0' && text.charAt(at) <= '9') at++;
            if (at - from > 18) {
                at = from;
                throw wrong("the number has more than 18 digits");
            }
            return new Term.Whole(Long.parseLong(text.substring(from, at)));
        }

        private Term attribute() {
            int end = text.indexOf('}', at);
            if (end < 0) throw wrong("the brace is not closed");
            String name = text.substring(at + 1, end).strip();
            if (name.isEmpty() || name.contains("{")) throw wrong("the braces name no attribute");
            at = end + 1;
            return new Term.Attribute(name);
        }

        void end() {
            if (peek() != 0) throw wrong("‘" + peek() + "’ is none of it");
        }

        /** The next symbol that is no blank; 0 at the end. */
        private char peek() {
            while (at < text.length() && text.charAt(at) == ' ') at++;
            return at < text.length() ? text.charAt(at) : 0;
        }

        private PatternException wrong(String problem) {
            return new PatternException(at + 1, problem, ACCEPTED);
        }
    }
}
