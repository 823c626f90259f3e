import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.util.HexFormat;
import java.util.stream.Stream;
import org.flywaydb.core.Flyway;
import org.jooq.codegen.GenerationTool;
import org.jooq.meta.jaxb.Configuration;
import org.jooq.meta.jaxb.Database;
import org.jooq.meta.jaxb.Generate;
import org.jooq.meta.jaxb.Generator;
import org.jooq.meta.jaxb.Jdbc;
import org.jooq.meta.jaxb.Logging;
import org.jooq.meta.jaxb.Target;

/**
 * Migrates an empty database in memory and writes jOOQ's table classes from it. Arguments: the migrations, the folder
 * to write to. Where neither the migrations nor the libraries are others than those of its last run, nothing is done.
 */
public class GenerateTables {
    public static void main(String[] args) throws Exception {
        Path inputs = Path.of(args[1]).resolve("inputs");
        String now = inputs(Path.of(args[0]));
        if (Files.exists(inputs) && Files.readString(inputs).equals(now)) return;
        String url = "jdbc:h2:mem:tables;DB_CLOSE_DELAY=-1";
        Flyway.configure()
                .dataSource(url, "sa", "")
                .locations("filesystem:" + Path.of(args[0]))
                .load()
                .migrate();
        GenerationTool.generate(new Configuration()
                .withLogging(Logging.WARN)
                .withJdbc(new Jdbc().withUrl(url).withUser("sa").withPassword(""))
                .withGenerator(new Generator()
                        .withDatabase(new Database()
                                .withName("org.jooq.meta.h2.H2Database")
                                .withInputSchema("PUBLIC")
                                .withOutputSchemaToDefault(true)
                                .withExcludes("(?i)flyway_.*")
                                .withIncludeSystemSequences(false))
                        .withGenerate(new Generate()
                                .withRecords(false)
                                .withGlobalCatalogReferences(false)
                                .withGlobalSchemaReferences(false))
                        .withTarget(new Target()
                                .withPackageName("org.youngtally.ledger.store.db")
                                .withDirectory(args[1]))));
        Files.writeString(inputs, now);
    }

    /** The migrations and the libraries. */
    private static String inputs(Path migrations) throws Exception {
        var digest = MessageDigest.getInstance("SHA-256");
        digest.update(System.getProperty("java.class.path").getBytes(StandardCharsets.UTF_8));
        try (Stream<Path> files = Files.list(migrations)) {
            for (Path file : files.sorted().toList()) {
                digest.update(file.getFileName().toString().getBytes(StandardCharsets.UTF_8));
                digest.update(Files.readAllBytes(file));
            }
        }
        return HexFormat.of().formatHex(digest.digest());
    }
}
