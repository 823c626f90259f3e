package org.youngtally.acceptance;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.Architectures.layeredArchitecture;

import com.tngtech.archunit.base.DescribedPredicate;
import com.tngtech.archunit.core.domain.JavaCall;
import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.domain.properties.HasName;
import com.tngtech.archunit.core.domain.properties.HasOwner;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.library.dependencies.SlicesRuleDefinition;
import java.time.Instant;
import java.time.LocalDate;
import org.junit.jupiter.api.Test;
import org.youngtally.ledger.Ledger;

/** Imports run one way. */
class StructureTest {
    private static final JavaClasses CLASSES = new ClassFileImporter()
            .withImportOption(new ImportOption.DoNotIncludeTests())
            .importPackages("org.youngtally");

    @Test
    void importsRunFromTheServiceThroughTheLedgerToTheCore() {
        layeredArchitecture()
                .consideringOnlyDependenciesInLayers()
                .layer("core")
                .definedBy("org.youngtally.core..")
                .layer("documents")
                .definedBy("org.youngtally.documents..")
                .layer("labels")
                .definedBy("org.youngtally.labels..")
                .layer("printers")
                .definedBy("org.youngtally.printers..")
                .layer("ledger")
                .definedBy("org.youngtally.ledger..")
                .layer("service")
                .definedBy("org.youngtally.service..")
                .layer("cli")
                .definedBy("org.youngtally.cli..")
                .whereLayer("service")
                .mayNotBeAccessedByAnyLayer()
                .whereLayer("cli")
                .mayNotBeAccessedByAnyLayer()
                .whereLayer("labels")
                .mayOnlyBeAccessedByLayers("service")
                .whereLayer("printers")
                .mayOnlyBeAccessedByLayers("service")
                .whereLayer("ledger")
                .mayOnlyBeAccessedByLayers("service")
                .whereLayer("documents")
                .mayOnlyBeAccessedByLayers("service", "cli")
                .whereLayer("core")
                .mayOnlyBeAccessedByLayers("documents", "labels", "ledger", "service", "cli")
                .check(CLASSES);
    }

    @Test
    void theCoreKnowsNoFrameworkNoDiskAndNoClock() {
        noClasses()
                .that()
                .resideInAPackage("org.youngtally.core..")
                .should()
                .dependOnClassesThat()
                .resideInAnyPackage(
                        "org.springframework..",
                        "org.jooq..",
                        "tools.jackson..",
                        "java.io..",
                        "java.nio.file..",
                        "java.sql..",
                        "java.net..")
                .check(CLASSES);
        noClasses()
                .that()
                .resideInAPackage("org.youngtally.core..")
                .should()
                .callMethod(LocalDate.class, "now")
                .orShould()
                .callMethod(Instant.class, "now")
                .orShould()
                .callMethod(System.class, "currentTimeMillis")
                .check(CLASSES);
    }

    /** Elsewhere questions to the tables are passed on to those who ask them, and not written. */
    @Test
    void tablesAreAskedByTheStoreAndTheAuditAlone() {
        noClasses()
                .that()
                .resideOutsideOfPackages("org.youngtally.ledger.store..", "org.youngtally.ledger.audit..")
                .should()
                .dependOnClassesThat()
                .resideInAPackage("org.youngtally.ledger.store.db..")
                .orShould()
                .callMethodWhere(JavaCall.Predicates.target(
                        HasOwner.Predicates.With.owner(JavaClass.Predicates.assignableTo(DescribedPredicate.describe(
                                "jOOQ", type -> type.getPackageName().equals("org.jooq"))))))
                .orShould()
                .dependOnClassesThat(DescribedPredicate.describe(
                        "JDBC",
                        type -> type.getPackageName().equals("java.sql")
                                && !type.getSimpleName().equals("SQLException")))
                .check(CLASSES);
    }

    /** H2 2.4.240 answers an {@code exists} as before where the same transaction wrote in between and asks again. */
    @Test
    void nobodyAsksTheTablesByExistsAlone() {
        noClasses()
                .should()
                .callMethodWhere(JavaCall.Predicates.target(HasName.Predicates.name("fetchExists")))
                .check(CLASSES);
    }

    /** What the ledger answers is known without the ledger. */
    @Test
    void theLedgerKnowsItsAnswersAndTheyKnowNoLedger() {
        noClasses()
                .that()
                .haveNameMatching("org\\.youngtally\\.ledger\\.(Outcome|Taking|Answers|Committed|LedgerSnapshot).*")
                .should()
                .dependOnClassesThat()
                .areAssignableTo(Ledger.class)
                .check(CLASSES);
    }

    @Test
    void packagesOfTheCoreFormNoCircle() {
        SlicesRuleDefinition.slices()
                .matching("org.youngtally.core.(*)..")
                .should()
                .beFreeOfCycles()
                .check(CLASSES);
    }
}
