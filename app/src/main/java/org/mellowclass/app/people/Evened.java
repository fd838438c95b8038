package org.mellowclass.app.people;

import java.util.regex.Pattern;

/**
 * Names and words as people mean them, whatever their keyboard or word processor makes of an apostrophe, a hyphen and a space (Unicode, general
 * categories Pd and Zs; UTS 39 for those that look like an apostrophe). What nobody sees is left out.
 */
final class Evened {

    static final String APOSTROPHES = "[`\u00B4\u02B9\u02BB\u02BC\u02BD\u02BE\u02BF\u02C8\u2018\u2019\u201A\u201B\u2032\u2035\uA78C\uFF07\uFF40]";
    static final String HYPHENS = "[\u058A\u2010\u2011\u2012\u2013\u2014\u2015\u2212\uFE58\uFE63\uFF0D]";
    static final String UNSEEN = "[\u00AD\u200B\u200C\u200D\u2060\uFEFF]";
    static final String SPACES = "[\t\n\r \u00A0\u1680\u2000-\u200A\u202F\u205F\u3000]+";

    /** The same of a column, for the database. */
    static final String NAME_IN_SQL = "trim(regexp_replace(regexp_replace(regexp_replace(regexp_replace(p.name, '" + UNSEEN + "', ''), '" + APOSTROPHES + "', ''''), '" + HYPHENS
            + "', '-'), '" + SPACES + "', ' '))";

    private static final Pattern APOSTROPHE = Pattern.compile(APOSTROPHES);
    private static final Pattern HYPHEN = Pattern.compile(HYPHENS);
    private static final Pattern NOTHING = Pattern.compile(UNSEEN);
    private static final Pattern SPACE = Pattern.compile(SPACES);

    private Evened() {
    }

    static String text(String typed) {
        String seen = NOTHING.matcher(typed).replaceAll("");
        return SPACE.matcher(HYPHEN.matcher(APOSTROPHE.matcher(seen).replaceAll("'")).replaceAll("-")).replaceAll(" ").strip();
    }
}
