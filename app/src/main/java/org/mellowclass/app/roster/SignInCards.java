package org.mellowclass.app.roster;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.util.List;

import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.pdmodel.PDPageContentStream;
import org.apache.pdfbox.pdmodel.common.PDRectangle;
import org.apache.pdfbox.pdmodel.font.PDFont;
import org.apache.pdfbox.pdmodel.font.PDType0Font;
import org.mellowclass.app.people.SchoolClass;
import org.springframework.stereotype.Component;

/** Sign-in cards as a PDF: two columns of five on a sheet of A4, with lines to cut along. */
@Component
class SignInCards {

    private static final int COLUMNS = 2;
    private static final int ROWS = 5;
    private static final float MARGIN = 28;
    private static final float INSET = 14;
    private static final float LARGE = 15;
    private static final float SMALL = 9.5f;
    /** It comes with PDFBox, and has the letters of all European names. */
    private static final String FONT = "/org/apache/pdfbox/resources/ttf/LiberationSans-Regular.ttf";

    /** Writes a card for each student; all of them have passphrases that can be read. */
    void write(SchoolClass schoolClass, String address, List<Student> students, OutputStream out) throws IOException {
        try (PDDocument document = new PDDocument(); InputStream fontFile = PDDocument.class.getResourceAsStream(FONT)) {
            PDFont font = PDType0Font.load(document, fontFile);
            document.getDocumentInformation().setTitle("Sign-in cards, " + schoolClass.name());
            int perPage = COLUMNS * ROWS;
            for (int from = 0; from < Math.max(1, students.size()); from += perPage) {
                PDPage page = new PDPage(PDRectangle.A4);
                document.addPage(page);
                try (PDPageContentStream content = new PDPageContentStream(document, page)) {
                    for (int i = from; i < Math.min(students.size(), from + perPage); i++) {
                        card(content, font, i - from, schoolClass, address, students.get(i));
                    }
                }
            }
            document.save(out);
        }
    }

    private static void card(PDPageContentStream content, PDFont font, int place, SchoolClass schoolClass, String address,
                             Student student) throws IOException {
        float width = (PDRectangle.A4.getWidth() - 2 * MARGIN) / COLUMNS;
        float height = (PDRectangle.A4.getHeight() - 2 * MARGIN) / ROWS;
        float x = MARGIN + place % COLUMNS * width;
        float top = PDRectangle.A4.getHeight() - MARGIN - place / COLUMNS * height;
        content.setStrokingColor(0.6f, 0.6f, 0.6f);
        content.setLineDashPattern(new float[] {3, 3}, 0);
        content.addRect(x, top - height, width, height);
        content.stroke();
        float room = width - 2 * INSET;
        text(content, font, LARGE, x + INSET, top - 30, room, student.name());
        text(content, font, SMALL, x + INSET, top - 46, room, schoolClass.schoolName() + " · " + schoolClass.name());
        text(content, font, SMALL, x + INSET, top - 70, room, "Go to " + address);
        text(content, font, SMALL, x + INSET, top - 86, room, "Class code");
        text(content, font, LARGE, x + INSET + 70, top - 87, room - 70, schoolClass.code());
        text(content, font, SMALL, x + INSET, top - 106, room, "Passphrase");
        text(content, font, LARGE, x + INSET + 70, top - 107, room - 70, student.freshPassphrase());
        text(content, font, SMALL, x + INSET, top - 132, room, "Keep it to yourself. Your teacher can give you a new one.");
    }

    /** Text that is made smaller until it fits. */
    private static void text(PDPageContentStream content, PDFont font, float size, float x, float y, float room, String text)
            throws IOException {
        String known = known(font, text);
        float width = font.getStringWidth(known) / 1000;
        content.beginText();
        content.setFont(font, Math.min(size, room / Math.max(0.001f, width)));
        content.newLineAtOffset(x, y);
        content.showText(known);
        content.endText();
    }

    /** The text with a question mark for every letter that the font does not have. */
    private static String known(PDFont font, String text) {
        StringBuilder known = new StringBuilder();
        text.codePoints().forEach(letter -> {
            String one = Character.toString(letter);
            try {
                font.encode(one);
                known.append(one);
            } catch (IOException | IllegalArgumentException missing) {
                known.append('?');
            }
        });
        return known.toString();
    }
}
