package org.youngtally.service.api;

import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.youngtally.service.web.Refusals.DefinitionFault;

/** What is asked and answered about documents. */
final class DocumentViews {
    private DocumentViews() {}

    /**
     * A document and the rule by which it is numbered.
     *
     * @param rule the text of the rule, YAML
     * @param files the sheets, in their order: up to 200 and 12 MB; of larger ones the items alone
     * @param originals what was in the place of the numbers before, by the items; without it what a number replaced
     *     cannot be put back
     * @param places of items, by the items, that the files say nothing of, or that a picture shows better
     * @param date the business date; default: today
     * @param plan the plan that is carried out: where the files or the rule changed since, it is refused; default:
     *     whatever the rule comes to
     * @param items whether the answer lists all items; default: no
     * @param pictures whether the answer has pictures of the drawings with the changes marked; default: no
     * @param values by their names, instead of those in the rule
     * @param table beside programs, whose rows are those of the pieces, in their order; .csv or .xlsx
     * @param reading whether the answer says how files are read by the rule, so that a client can read large ones;
     *     default: no
     */
    record DocumentRequest(
            String rule,
            List<DocumentFile> files,
            @Nullable Map<String, String> originals,
            @Nullable Map<String, DocumentPlace> places,
            @Nullable String date,
            @Nullable String plan,
            @Nullable Boolean items,
            @Nullable Boolean pictures,
            @Nullable Map<String, String> values,
            @Nullable DocumentFile table,
            @Nullable Boolean reading) {}

    /**
     * A file as a sheet of a document.
     *
     * @param name whose ending says the format: .svg, .csv, .xlsx, .json, .xml, .stp, .step, .p21 or .3mf; any for a
     *     program
     * @param content its bytes, in Base64; absent where its items are sent instead
     * @param items of a file that is read and written by the client, as the answer lists them
     * @param digest of such a file, by which a plan knows it
     * @param numberedName its name once it is numbered, by the rule's {@code file-name}; in answers
     */
    record DocumentFile(
            String name,
            @Nullable String content,
            @Nullable List<DocumentItemView> items,
            @Nullable String digest,
            @Nullable String numberedName) {
        DocumentFile(String name, String content, @Nullable String numberedName) {
            this(name, content, null, null, numberedName);
        }
    }

    /**
     * A place on a sheet.
     *
     * @param x from its left edge, in its own units
     * @param y from its upper edge
     */
    record DocumentPlace(double x, double y) {}

    /**
     * What a rule comes to in a document.
     *
     * @param plan by which it is named when it is carried out
     * @param sheets in their order
     * @param restarts the attributes with which the count begins again
     * @param groups in the order of their values
     * @param changes in the order of the count
     * @param unchanged how many items have a number and keep it
     * @param allocated how many numbers are allocated from the series
     * @param faults why it cannot be carried out, in the rule or in the document
     * @param items all of them, where they were asked for
     * @param pictures of the drawings, where they were asked for
     * @param lines of programs that would be otherwise, the first 5,000
     * @param filled in how many places of programs a value would go
     * @param known how many numbers were allocated earlier for the document, and are not in the files that were sent
     * @param document what it is called in the ledger; absent where it counts itself
     * @param names of the numbered files, by the rule's {@code file-name}; absent where it says none
     * @param reading how files are read by the rule, where it was asked for
     */
    record DocumentPlanView(
            String plan,
            List<DocumentSheetView> sheets,
            List<String> restarts,
            List<DocumentGroupView> groups,
            List<DocumentChangeView> changes,
            long unchanged,
            long allocated,
            List<DefinitionFault> faults,
            @Nullable List<DocumentItemView> items,
            @Nullable List<DocumentFile> pictures,
            List<DocumentLine> lines,
            long filled,
            long known,
            @Nullable String document,
            @Nullable List<String> names,
            @Nullable DocumentReading reading) {
        DocumentPlanView with(DocumentReading read) {
            return new DocumentPlanView(
                    plan, sheets, restarts, groups, changes, unchanged, allocated, faults, items, pictures, lines,
                    filled, known, document, names, read);
        }
    }

    /**
     * A line of a program that is otherwise.
     *
     * @param sheet from 1
     * @param line from 1
     * @param before as far as it can be shown
     * @param after the same part of it
     */
    record DocumentLine(int sheet, long line, String before, String after) {}

    /**
     * How files are read by a rule.
     *
     * @param into where the number goes; absent for the usual place
     * @param path of the items of XML
     * @param identity the attribute by which items are known
     * @param between the two marks between which the number goes; empty for none
     * @param marks of a program; empty for none
     * @param values that every item has
     * @param rows of the table, one for each piece; absent for none
     * @param also the properties of part files that are written beside the number
     */
    record DocumentReading(
            @Nullable String into,
            @Nullable String path,
            @Nullable String identity,
            List<String> between,
            List<DocumentMark> marks,
            Map<String, String> values,
            @Nullable List<Map<String, String>> rows,
            List<String> also) {}

    /**
     * A text of a program.
     *
     * @param text that is in the file
     * @param replacedBy what replaces it; absent for a text that stays
     * @param begins what begins with it; absent for nothing
     */
    record DocumentMark(
            String text,
            @Nullable String replacedBy,
            @Nullable String begins) {}

    /**
     * A sheet of a document.
     *
     * @param name of its file
     * @param width in its own units; 0 where it has none
     * @param height in its own units; 0 where it has none
     */
    record DocumentSheetView(String name, double width, double height) {}

    /**
     * Items that are counted together.
     *
     * @param values of the attributes with which the count begins again
     * @param items how many have a number
     * @param first the first number
     * @param last the last number
     */
    record DocumentGroupView(List<String> values, int items, String first, String last) {}

    /**
     * An item that gets another text.
     *
     * @param item by which the document knows it
     * @param sheet from 1
     * @param before the text that is there
     * @param after the text that replaces it
     * @param number in it; absent for none
     * @param also further properties that are written, by their names
     */
    record DocumentChangeView(
            String item,
            int sheet,
            String before,
            String after,
            @Nullable String number,
            Map<String, String> also) {}

    /**
     * An item of a document.
     *
     * @param item by which the document knows it
     * @param sheet from 1
     * @param text that is there
     * @param attributes by their names
     * @param place on its sheet; absent where it has none
     * @param element its place among the texts of the drawing, from 0; absent where it is in no drawing
     */
    record DocumentItemView(
            String item,
            int sheet,
            String text,
            Map<String, String> attributes,
            @Nullable DocumentPlace place,
            @Nullable Integer element) {}

    /**
     * A document that was numbered.
     *
     * @param plan that was carried out
     * @param files all of them, with the numbers; those without a change are as they were
     * @param changes in the order of the count
     * @param restarts the attributes with which the count begins again
     * @param groups in the order of their values
     * @param unchanged how many items had a number and kept it
     * @param allocations of numbers, one for each series; empty where none was allocated
     * @param lines of programs that are otherwise, the first 5,000
     * @param filled in how many places of programs a value went
     * @param known how many of the numbers were allocated earlier for the document
     * @param document what it is called in the ledger; absent where it counts itself
     */
    record NumberedDocument(
            String plan,
            List<DocumentFile> files,
            List<DocumentChangeView> changes,
            List<String> restarts,
            List<DocumentGroupView> groups,
            long unchanged,
            List<DocumentAllocation> allocations,
            List<DocumentLine> lines,
            long filled,
            long known,
            @Nullable String document) {}

    /**
     * Numbers that were allocated for a document.
     *
     * @param series that they are of
     * @param entry that allocated them
     * @param identifiers in the order of the count
     */
    record DocumentAllocation(String series, long entry, List<String> identifiers) {}
}
