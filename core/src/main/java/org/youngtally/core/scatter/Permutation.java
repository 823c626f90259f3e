package org.youngtally.core.scatter;

import java.nio.ByteBuffer;
import java.security.GeneralSecurityException;
import javax.crypto.Cipher;
import javax.crypto.spec.SecretKeySpec;

/**
 * A keyed permutation of the numbers below a size, which without the key can neither be foretold nor be turned back.
 * The construction is FF1 of NIST SP 800-38G over AES, for numerals in any radix; a number that falls outside the size
 * is enciphered again until it falls inside (cycle-walking: Black and Rogaway, Ciphers with Arbitrary Finite Domains,
 * 2002).
 */
public final class Permutation {
    private static final int ROUNDS = 10;
    private static final int BLOCK = 16;
    /** FF1 asks for 100 numbers at the least: seven binary places. */
    private static final int FEWEST_PLACES = 7;

    private final Ff1 cipher;
    private final long size;

    /**
     * @param key of AES: 16, 24 or 32 bytes
     * @param tweak another one gives another permutation under the same key
     * @param size up to 10^18
     */
    public Permutation(byte[] key, byte[] tweak, long size) {
        if (size < 1) throw new IllegalArgumentException("a permutation of " + size + " numbers");
        this.size = size;
        this.cipher = new Ff1(key, tweak, 2, Math.max(FEWEST_PLACES, Long.SIZE - Long.numberOfLeadingZeros(size - 1)));
    }

    public long forward(long number) {
        long next = cipher.encipher(within(number));
        while (next >= size) next = cipher.encipher(next);
        return next;
    }

    public long back(long number) {
        long next = cipher.decipher(within(number));
        while (next >= size) next = cipher.decipher(next);
        return next;
    }

    private long within(long number) {
        if (number < 0 || number >= size) throw new IndexOutOfBoundsException(number + " is not below " + size);
        return number;
    }

    /** FF1 over numbers of a fixed count of places, up to 63 bits. */
    static final class Ff1 {
        private final SecretKeySpec key;
        private final byte[] tweak;
        private final long leftSize;
        private final long rightSize;
        private final byte[] head;
        private final int bytes;
        private final int taken;

        /** @param places how many places a numeral has, 2 or more */
        Ff1(byte[] key, byte[] tweak, int radix, int places) {
            this.key = new SecretKeySpec(key, "AES");
            this.tweak = tweak.clone();
            int left = places / 2;
            int right = places - left;
            this.leftSize = power(radix, left);
            this.rightSize = power(radix, right);
            this.bytes = (int) Math.ceil(Math.ceil(right * (Math.log(radix) / Math.log(2))) / 8);
            this.taken = 4 * ((bytes + 3) / 4) + 4;
            this.head = ByteBuffer.allocate(BLOCK)
                    .put((byte) 1)
                    .put((byte) 2)
                    .put((byte) 1)
                    .put((byte) (radix >>> 16))
                    .putShort((short) radix)
                    .put((byte) ROUNDS)
                    .put((byte) left)
                    .putInt(places)
                    .putInt(tweak.length)
                    .array();
        }

        private static long power(int radix, int places) {
            long power = 1;
            for (int i = 0; i < places; i++) power = Math.multiplyExact(power, radix);
            return power;
        }

        /** The numeral is left half × right half's size + right half. */
        long encipher(long number) {
            Cipher aes = aes();
            long a = number / rightSize;
            long b = number % rightSize;
            for (int round = 0; round < ROUNDS; round++) {
                long c = Math.floorMod(a + round(aes, round, b, modulus(round)), modulus(round));
                a = b;
                b = c;
            }
            return a * rightSize + b;
        }

        long decipher(long number) {
            Cipher aes = aes();
            long a = number / rightSize;
            long b = number % rightSize;
            for (int round = ROUNDS - 1; round >= 0; round--) {
                long c = Math.floorMod(b - round(aes, round, a, modulus(round)), modulus(round));
                b = a;
                a = c;
            }
            return a * rightSize + b;
        }

        private long modulus(int round) {
            return round % 2 == 0 ? leftSize : rightSize;
        }

        /** The round function's number, already modulo what it is added in. */
        private long round(Cipher aes, int round, long half, long modulus) {
            int padding = Math.floorMod(-tweak.length - bytes - 1, BLOCK);
            ByteBuffer q = ByteBuffer.allocate(BLOCK + tweak.length + padding + 1 + bytes);
            q.put(head).put(tweak).put(new byte[padding]).put((byte) round);
            for (int i = bytes - 1; i >= 0; i--) q.put((byte) (i < Long.BYTES ? half >>> (8 * i) : 0));
            byte[] r = chained(aes, q.array());
            long number = 0;
            // Places are 31 bits a half at most, so that d is 8 bytes: one block of the cipher holds them.
            for (int i = 0; i < taken; i++) number = (number * 256 % modulus + (r[i] & 0xff)) % modulus;
            return number;
        }

        /** The last block of cipher block chaining from nought, as a pseudo-random function. */
        private static byte[] chained(Cipher aes, byte[] text) {
            byte[] block = new byte[BLOCK];
            for (int at = 0; at < text.length; at += BLOCK) {
                for (int i = 0; i < BLOCK; i++) block[i] ^= text[at + i];
                block = enciphered(aes, block);
            }
            return block;
        }

        private static byte[] enciphered(Cipher aes, byte[] block) {
            try {
                return aes.doFinal(block);
            } catch (GeneralSecurityException e) {
                throw new IllegalStateException("AES failed on a whole block", e);
            }
        }

        private Cipher aes() {
            try {
                Cipher aes = Cipher.getInstance("AES/ECB/NoPadding");
                aes.init(Cipher.ENCRYPT_MODE, key);
                return aes;
            } catch (GeneralSecurityException e) {
                throw new IllegalStateException("every Java has AES", e);
            }
        }
    }
}
