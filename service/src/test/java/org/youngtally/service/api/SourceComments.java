package org.youngtally.service.api;

import com.sun.source.doctree.DocCommentTree;
import com.sun.source.doctree.DocTree;
import com.sun.source.doctree.ParamTree;
import com.sun.source.tree.ClassTree;
import com.sun.source.tree.CompilationUnitTree;
import com.sun.source.tree.Tree;
import com.sun.source.util.DocTrees;
import com.sun.source.util.JavacTask;
import com.sun.source.util.TreePathScanner;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import javax.tools.ToolProvider;

/** What the comments in the sources say of records and of their components. */
final class SourceComments {
    private final Map<String, String> comments = new HashMap<>();

    private SourceComments() {}

    static SourceComments under(Path sources) throws IOException {
        var found = new SourceComments();
        List<Path> files;
        try (Stream<Path> all = Files.walk(sources)) {
            files = all.filter(file -> file.toString().endsWith(".java")).toList();
        }
        var compiler = ToolProvider.getSystemJavaCompiler();
        try (var manager = compiler.getStandardFileManager(null, null, null)) {
            var task = (JavacTask)
                    compiler.getTask(null, manager, null, null, null, manager.getJavaFileObjectsFromPaths(files));
            DocTrees trees = DocTrees.instance(task);
            for (CompilationUnitTree unit : task.parse()) found.read(unit, trees);
        }
        return found;
    }

    private void read(CompilationUnitTree unit, DocTrees trees) {
        new TreePathScanner<Void, Void>() {
            @Override
            public Void visitClass(ClassTree type, Void nothing) {
                DocCommentTree comment = trees.getDocCommentTree(getCurrentPath());
                if (type.getKind() == Tree.Kind.RECORD && comment != null)
                    keep(type.getSimpleName().toString(), comment);
                return super.visitClass(type, nothing);
            }
        }.scan(unit, null);
    }

    private void keep(String record, DocCommentTree comment) {
        comments.put(record, text(comment.getFullBody()));
        for (DocTree tag : comment.getBlockTags())
            if (tag instanceof ParamTree component)
                comments.put(record + "." + component.getName(), text(component.getDescription()));
    }

    private static String text(List<? extends DocTree> parts) {
        return parts.stream()
                .map(DocTree::toString)
                .collect(Collectors.joining())
                .replaceAll("\\{@\\w+ #?([^}]*)}", "$1")
                .replaceAll("\\s+", " ")
                .strip();
    }

    /** Of a record; empty where nothing is said. */
    String of(String record) {
        return comments.getOrDefault(record, "");
    }

    /** Of a component of a record; empty where nothing is said. */
    String of(String record, String component) {
        return comments.getOrDefault(record + "." + component, "");
    }
}
