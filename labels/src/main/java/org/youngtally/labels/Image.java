package org.youngtally.labels;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.Base64;
import java.util.Iterator;
import java.util.Optional;
import javax.imageio.ImageIO;
import javax.imageio.ImageReader;
import javax.imageio.stream.ImageInputStream;

/** A picture of a layout: a PNG or JPEG file. */
final class Image {
    private final byte[] file;
    private final BufferedImage dots;

    private Image(byte[] file, BufferedImage dots) {
        this.file = file;
        this.dots = dots;
    }

    /** Empty where it is no such file, or has more dots. */
    static Optional<Image> of(String base64, long most) {
        try {
            byte[] file = Base64.getMimeDecoder().decode(base64);
            try (ImageInputStream input = ImageIO.createImageInputStream(new ByteArrayInputStream(file))) {
                Iterator<ImageReader> readers = ImageIO.getImageReaders(input);
                while (readers.hasNext()) {
                    ImageReader reader = readers.next();
                    if (!reader.getFormatName().matches("(?i)png|jpe?g")) continue;
                    reader.setInput(input);
                    if ((long) reader.getWidth(0) * reader.getHeight(0) > most) return Optional.empty();
                    return Optional.of(new Image(file, reader.read(0)));
                }
            }
            return Optional.empty();
        } catch (IOException | IllegalArgumentException e) {
            // That is how both say that it is none.
            return Optional.empty();
        }
    }

    byte[] file() {
        return file;
    }

    BufferedImage dots() {
        return dots;
    }
}
