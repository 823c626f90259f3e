import java.io.IOException;
import java.io.InputStream;
import java.nio.file.FileSystem;
import java.nio.file.FileSystems;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.Stream;
import org.objectweb.asm.ClassReader;
import org.objectweb.asm.ClassVisitor;
import org.objectweb.asm.ClassWriter;
import org.objectweb.asm.Opcodes;

/**
 * Writes the classes of a library anew in a class file format of today, changing nothing that they do. The virtual
 * machine does not share classes of formats older than Java 6 between runs, and loading those of the command-line
 * library took most of a call's time. Argument: a folder of jars.
 */
public final class RenewClasses {
    private RenewClasses() {}

    public static void main(String[] args) throws IOException {
        try (Stream<Path> files = Files.list(Path.of(args[0]))) {
            for (Path jar :
                    files.filter(file -> file.toString().endsWith(".jar")).toList()) renew(jar);
        }
    }

    private static void renew(Path file) throws IOException {
        try (FileSystem jar = FileSystems.newFileSystem(file);
                Stream<Path> files = Files.walk(jar.getPath("/"))) {
            for (Path each : files.filter(
                            one -> one.toString().endsWith(".class") && !one.endsWith("module-info.class"))
                    .toList()) {
                byte[] old = Files.readAllBytes(each);
                if (new ClassReader(old).readShort(6) < Opcodes.V1_6) Files.write(each, renewed(old, jar));
            }
        }
    }

    private static byte[] renewed(byte[] old, FileSystem jar) {
        var reader = new ClassReader(old);
        var writer = new ClassWriter(ClassWriter.COMPUTE_FRAMES) {
            @Override
            protected String getCommonSuperClass(String one, String other) {
                return common(one, other, jar);
            }
        };
        reader.accept(
                new ClassVisitor(Opcodes.ASM9, writer) {
                    @Override
                    public void visit(
                            int version,
                            int access,
                            String name,
                            String signature,
                            String superName,
                            String[] interfaces) {
                        super.visit(Opcodes.V1_8, access, name, signature, superName, interfaces);
                    }
                },
                ClassReader.SKIP_FRAMES);
        return writer.toByteArray();
    }

    /** The closest class that both descend from, without loading either. */
    private static String common(String one, String other, FileSystem jar) {
        for (String a = one; a != null; a = parent(a, jar))
            for (String b = other; b != null; b = parent(b, jar)) if (a.equals(b)) return a;
        return "java/lang/Object";
    }

    private static String parent(String name, FileSystem jar) {
        try {
            Path own = jar.getPath("/" + name + ".class");
            if (Files.exists(own)) return new ClassReader(Files.readAllBytes(own)).getSuperName();
            try (InputStream theirs = ClassLoader.getSystemResourceAsStream(name + ".class")) {
                return theirs == null ? null : new ClassReader(theirs).getSuperName();
            }
        } catch (IOException e) {
            throw new IllegalStateException(name + " cannot be read", e);
        }
    }
}
