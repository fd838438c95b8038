package org.mellowclass.core.publish;

import java.text.Normalizer;
import java.util.Locale;

/** File names of published sound: lower case letters and digits with hyphens between, no spaces, at most 60 long. */
public final class Slug {

    private static final int LONGEST = 60;

    private Slug() {
    }

    /** The slug of a title; {@code episode} where nothing of the title can be kept. */
    public static String of(String title) {
        String plain = Normalizer.normalize(title, Normalizer.Form.NFKD).replaceAll("\\p{M}", "")
                .toLowerCase(Locale.ROOT).replaceAll("['’]", "").replaceAll("[^a-z0-9]+", "-");
        String cut = plain.substring(0, Math.min(LONGEST, plain.length())).replaceAll("^-|-$", "");
        return cut.isEmpty() ? "episode" : cut;
    }
}
