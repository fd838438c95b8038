package org.mellowclass.app.people;

import java.util.List;

import com.nulabinc.zxcvbn.Zxcvbn;
import org.mellowclass.app.web.Refusal;

/** What a teacher's password has to be: long enough, of any letters, and not among the first that somebody would guess. */
final class Passwords {

    private static final int SHORTEST = 12;
    private static final int LONGEST = 128;
    /** "Safely unguessable: moderate protection from offline slow-hash scenario" (zxcvbn). */
    private static final int LEAST_SCORE = 3;
    /** The estimator takes longer for longer ones, and what is strong at that length stays strong. */
    private static final int LOOKED_AT = 100;

    private static final Zxcvbn ESTIMATOR = new Zxcvbn();

    private Passwords() {
    }

    /**
     * @param known what somebody would try first: name, e-mail
     * @throws Refusal if it is too short, too long, or easy to guess
     */
    static void check(String password, List<String> known) {
        if (password == null || password.codePointCount(0, password.length()) < SHORTEST || password.length() > LONGEST) {
            throw Refusal.unfit("set-up.PASSWORD", SHORTEST, LONGEST);
        }
        if (ESTIMATOR.measure(password.substring(0, Math.min(LOOKED_AT, password.length())), known).getScore() < LEAST_SCORE) {
            throw Refusal.unfit("set-up.PASSWORD_WEAK");
        }
    }
}
