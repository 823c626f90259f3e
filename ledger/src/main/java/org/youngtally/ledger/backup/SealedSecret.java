package org.youngtally.ledger.backup;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
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
import org.bouncycastle.openpgp.operator.bc.BcPBEDataDecryptorFactory;
import org.bouncycastle.openpgp.operator.bc.BcPBEKeyEncryptionMethodGenerator;
import org.bouncycastle.openpgp.operator.bc.BcPGPDataEncryptorBuilder;
import org.bouncycastle.openpgp.operator.bc.BcPGPDigestCalculatorProvider;

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
                    passphrase, new BcPGPDigestCalculatorProvider().get(HashAlgorithmTags.SHA256), ITERATED));
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

    /** @throws WrongPassphrase where it does not open, or is not what was written */
    static byte[] open(byte[] sealed, char[] passphrase) throws IOException {
        try {
            Object first = new BcPGPObjectFactory(sealed).nextObject();
            if (!(first instanceof PGPEncryptedDataList list)
                    || list.isEmpty()
                    || !(list.get(0) instanceof PGPPBEEncryptedData data))
                throw new IOException("the secret of this backup is not a message under a passphrase");
            byte[] opened;
            try (InputStream in = data.getDataStream(
                    new BcPBEDataDecryptorFactory(passphrase, new BcPGPDigestCalculatorProvider()))) {
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
