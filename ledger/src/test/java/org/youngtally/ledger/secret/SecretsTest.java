package org.youngtally.ledger.secret;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class SecretsTest {
    @TempDir
    private Path folder;

    @Test
    void whatASeriesWouldGetIsWrittenNowhere() {
        Secrets.in(folder).proposed("melt");
        assertThat(folder).isEmptyDirectory();
    }

    @Test
    void aSeriesGetsWhatWasProposed() {
        Secrets secrets = Secrets.in(folder);
        String proposed = secrets.proposed("melt").mark();
        assertThat(secrets.of("melt").mark()).isEqualTo(proposed);
    }

    @Test
    void whatIsThereIsProposedToo() {
        String kept = Secrets.in(folder).of("melt").mark();
        assertThat(Secrets.in(folder).proposed("melt").mark()).isEqualTo(kept);
    }

    @Test
    void eachSeriesHasAKeyOfItsOwn() {
        Secrets secrets = Secrets.in(folder);
        assertThat(secrets.of("melt").mark()).isNotEqualTo(secrets.of("cast").mark());
    }
}
