package org.mellowclass.app.feed;

import java.awt.BasicStroke;
import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.geom.AffineTransform;
import java.awt.geom.Path2D;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;

import javax.imageio.ImageIO;

import org.apache.fontbox.ttf.CmapLookup;
import org.apache.fontbox.ttf.GlyphData;
import org.apache.fontbox.ttf.TTFParser;
import org.apache.fontbox.ttf.TrueTypeFont;
import org.apache.pdfbox.io.RandomAccessReadBuffer;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.springframework.stereotype.Component;

/** The picture of a feed: its name above a tide that is drawn for this feed alone. Letters are drawn as outlines, since a server may have no fonts. */
@Component
class FeedCover {

    /** The side in pixels: directories ask for 1,400 to 3,000. */
    static final int SIDE = 1400;

    private static final String FONT = "/org/apache/pdfbox/resources/ttf/LiberationSans-Regular.ttf";
    private static final int MARGIN = 110;
    private static final int LARGEST_LETTERS = 190;
    private static final int SMALLEST_LETTERS = 40;
    private static final int MOST_LINES = 3;
    private static final double TEXT_UNTIL = 0.5 * SIDE;
    private static final Color PAPER = new Color(0xFAF5EA);
    private static final Color INK = new Color(0x2B2140);
    private static final Color[] WATER = {new Color(0x7A3E8E), new Color(0x2F5D8C), new Color(0xA23B5E), new Color(0x8A5A2B), new Color(0x4A5568)};
    private static final int WAVES = 5;

    private final TrueTypeFont font;
    private final CmapLookup glyphs;

    FeedCover() throws IOException {
        try (InputStream file = PDDocument.class.getResourceAsStream(FONT)) {
            font = new TTFParser().parse(new RandomAccessReadBuffer(file));
            glyphs = font.getUnicodeCmapLookup();
        }
    }

    /**
     * Draws a cover.
     *
     * @param seed tells one tide from another
     * @return a PNG of {@value #SIDE} by {@value #SIDE} pixels
     */
    synchronized byte[] png(String title, String school, String seed) {
        BufferedImage image = new BufferedImage(SIDE, SIDE, BufferedImage.TYPE_INT_RGB);
        Graphics2D ink = image.createGraphics();
        ink.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
        ink.setColor(PAPER);
        ink.fillRect(0, 0, SIDE, SIDE);
        tide(ink, new Random(seed.hashCode()));
        try {
            title(ink, title);
            ink.setColor(PAPER);
            line(ink, school, MARGIN, SIDE - 70, Math.min(60, 60 * (SIDE - 2 * MARGIN) / Math.max(1, width(school, 60))));
            ByteArrayOutputStream png = new ByteArrayOutputStream();
            ImageIO.write(image, "png", png);
            return png.toByteArray();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } finally {
            ink.dispose();
        }
    }

    private static void tide(Graphics2D ink, Random random) {
        int first = random.nextInt(WATER.length);
        for (int wave = 0; wave < WAVES; wave++) {
            double level = TEXT_UNTIL + 60 + wave * (SIDE - 260 - TEXT_UNTIL - 60) / (WAVES - 1);
            double height = 18 + random.nextInt(30);
            double length = 260 + random.nextInt(420);
            double phase = random.nextDouble() * 2 * Math.PI;
            Path2D water = new Path2D.Double();
            water.moveTo(0, SIDE);
            for (int x = 0; x <= SIDE; x += 4) {
                water.lineTo(x, level + height * Math.sin(2 * Math.PI * x / length + phase) + height / 3 * Math.sin(4.7 * Math.PI * x / length + 2 * phase));
            }
            water.lineTo(SIDE, SIDE);
            water.closePath();
            ink.setColor(wave == WAVES - 1 ? INK : WATER[(first + wave) % WATER.length]);
            ink.fill(water);
            ink.setColor(PAPER);
            ink.setStroke(new BasicStroke(6));
            ink.draw(water);
        }
    }

    /** In the largest letters that leave it on three lines above the water. */
    private void title(Graphics2D ink, String title) throws IOException {
        double size = LARGEST_LETTERS;
        List<String> lines = lines(title, size);
        while ((lines.size() > MOST_LINES || widest(lines, size) > SIDE - 2 * MARGIN) && size > SMALLEST_LETTERS) {
            size *= 0.92;
            lines = lines(title, size);
        }
        ink.setColor(INK);
        double y = MARGIN + size * 0.75;
        for (String line : lines.subList(0, Math.min(MOST_LINES, lines.size()))) {
            line(ink, line, MARGIN, y, size);
            y += size * 1.12;
        }
    }

    private double widest(List<String> lines, double size) throws IOException {
        double widest = 0;
        for (String line : lines) {
            widest = Math.max(widest, width(line, size));
        }
        return widest;
    }

    private List<String> lines(String text, double size) throws IOException {
        List<String> lines = new ArrayList<>();
        StringBuilder line = new StringBuilder();
        for (String word : text.strip().split("\\s+")) {
            if (line.length() > 0 && width(line + " " + word, size) > SIDE - 2 * MARGIN) {
                lines.add(line.toString());
                line.setLength(0);
            }
            line.append(line.length() == 0 ? "" : " ").append(word);
        }
        lines.add(line.toString());
        return lines;
    }

    private double width(String text, double size) throws IOException {
        double width = 0;
        for (int point : text.codePoints().toArray()) {
            width += font.getAdvanceWidth(glyphs.getGlyphId(point));
        }
        return width * size / font.getUnitsPerEm();
    }

    private void line(Graphics2D ink, String text, double x, double y, double size) throws IOException {
        double scale = size / font.getUnitsPerEm();
        double at = x;
        for (int point : text.codePoints().toArray()) {
            int glyph = glyphs.getGlyphId(point);
            GlyphData data = font.getGlyph().getGlyph(glyph);
            if (data != null) {
                AffineTransform place = AffineTransform.getTranslateInstance(at, y);
                place.scale(scale, -scale);
                ink.fill(place.createTransformedShape(data.getPath()));
            }
            at += font.getAdvanceWidth(glyph) * scale;
        }
    }
}
