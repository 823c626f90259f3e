package org.youngtally.ledger.backup;

import java.io.BufferedOutputStream;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.security.SecureRandom;
import java.util.Date;
import org.bouncycastle.bcpg.HashAlgorithmTags;
import org.bouncycastle.bcpg.SymmetricKeyAlgorithmTags;
import org.bouncycastle.openpgp.PGPEncryptedDataGenerator;
import org.bouncycastle.openpgp.PGPEncryptedDataList;
import org.bouncycastle.openpgp.PGPException;
import org.bouncycastle.openpgp.PGPLiteralData;
import org.bouncycastle.openpgp.PGPLiteralDataGenerator;
import org.bouncycastle.openpgp.PGPPBEEncryptedData;
import org.bouncycastle.openpgp.bc.BcPGPObjectFactory;
import org.bouncycastle.openpgp.operator.PGPDigestCalculator;
import org.bouncycastle.openpgp.operator.PGPDigestCalculatorProvider;
import org.bouncycastle.openpgp.operator.bc.BcPBEDataDecryptorFactory;
import org.bouncycastle.openpgp.operator.bc.BcPBEKeyEncryptionMethodGenerator;
import org.bouncycastle.openpgp.operator.bc.BcPGPDataEncryptorBuilder;
import org.bouncycastle.openpgp.operator.jcajce.JcaPGPDigestCalculatorProviderBuilder;

/**
 * The secret of a data folder under a passphrase: an OpenPGP message (RFC 9580) that any program for such messages
 * reads, with AES-256, a check against changes, and a key from the passphrase by iterated and salted SHA-256.
 */
final class SealedSecret {
    /** The most that the format counts: 65,011,712 bytes are hashed for one try. */
    private static final int ITERATED = 0xff;

    private SealedSecret() {}

    /** The passphrase opens it not, or it is not what was written. */
    static final class WrongPassphrase extends IOException {
        private static final long serialVersionUID = 1L;

        WrongPassphrase(Throwable cause) {
            super("the passphrase does not open the secret of this backup", cause);
        }
    }

    static byte[] seal(byte[] secret, char[] passphrase) throws IOException {
        var out = new ByteArrayOutputStream();
        try {
            var encryption =
                    new PGPEncryptedDataGenerator(new BcPGPDataEncryptorBuilder(SymmetricKeyAlgorithmTags.AES_256)
                            .setWithIntegrityPacket(true)
                            .setSecureRandom(new SecureRandom()));
            encryption.addMethod(new BcPBEKeyEncryptionMethodGenerator(
                    passphrase, digests().get(HashAlgorithmTags.SHA256), ITERATED));
            try (OutputStream sealed = encryption.open(out, new byte[1 << 10]);
                    OutputStream literal = new PGPLiteralDataGenerator()
                            .open(sealed, PGPLiteralData.BINARY, "secret", secret.length, new Date(0))) {
                literal.write(secret);
            }
        } catch (PGPException e) {
            throw new IOException("the secret cannot be encrypted: " + e.getMessage(), e);
        }
        return out.toByteArray();
    }

    /** Those of the Java platform, which use what the processor has for them. */
    private static PGPDigestCalculatorProvider digests() throws PGPException {
        PGPDigestCalculatorProvider platform = new JcaPGPDigestCalculatorProviderBuilder().build();
        return algorithm -> InPieces.of(platform.get(algorithm));
    }

    /** A passphrase is written to a digest millions of times, a few bytes each. */
    private record InPieces(PGPDigestCalculator digest, OutputStream pieces) implements PGPDigestCalculator {
        private static final int SIZE = 1 << 16;

        static InPieces of(PGPDigestCalculator digest) {
            return new InPieces(digest, new BufferedOutputStream(digest.getOutputStream(), SIZE));
        }

        @Override
        public int getAlgorithm() {
            return digest.getAlgorithm();
        }

        @Override
        public OutputStream getOutputStream() {
            return pieces;
        }

        @Override
        public byte[] getDigest() {
            flush();
            return digest.getDigest();
        }

        @Override
        public void reset() {
            flush();
            digest.reset();
        }

        private void flush() {
            try {
                pieces.flush();
            } catch (IOException e) {
                throw new UncheckedIOException("a digest does not fail", e);
            }
        }
    }

    /** @throws WrongPassphrase where it does not open, or is not what was written */
    static byte[] open(byte[] sealed, char[] passphrase) throws IOException {
        try {
            Object first = new BcPGPObjectFactory(sealed).nextObject();
            if (!(first instanceof PGPEncryptedDataList list)
                    || list.isEmpty()
                    || !(list.get(0) instanceof PGPPBEEncryptedData data))
                throw new IOException("the secret of this backup is not a message under a passphrase");
            byte[] opened;
            try (InputStream in = data.getDataStream(new BcPBEDataDecryptorFactory(passphrase, digests()))) {
                Object literal = new BcPGPObjectFactory(in).nextObject();
                if (!(literal instanceof PGPLiteralData whole)) throw new WrongPassphrase(null);
                opened = new ByteArrayInputStream(whole.getInputStream().readAllBytes()).readAllBytes();
                in.readAllBytes();
            }
            if (!data.verify()) throw new WrongPassphrase(null);
            return opened;
        } catch (PGPException e) {
            throw new WrongPassphrase(e);
        } catch (IOException e) {
            if (e instanceof WrongPassphrase) throw e;
            // Under a wrong key the message falls apart anywhere.
            throw new WrongPassphrase(e);
        }
    }
}
