package org.mellowclass.app.people;

import java.time.Clock;
import java.time.Duration;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import io.github.bucket4j.Bucket;
import org.mellowclass.app.people.PeopleMapper.WithSecret;
import org.mellowclass.app.securitylog.SecurityLog;
import org.mellowclass.app.store.RandomKey;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Service;

/**
 * Checks passwords and passphrases. The person is looked up first, and attempts are counted by who was found and not by what was
 * typed, since the database takes several spellings for one name. A laptop on which somebody has signed in before is counted by
 * itself, so that nobody else can lock it out; all others of a class together are slowed, since a whole school shares one network
 * address. An account that does not exist costs as much time as one that does.
 */
@Service
public class SignIn {

    private static final int ATTEMPTS = 6;
    private static final Duration REFILL = Duration.ofMinutes(5);
    /** From all laptops together that nobody of a class has used: a class that comes in for the first time is not held up. */
    private static final int ATTEMPTS_OF_STRANGERS = 60;
    private static final Duration REFILL_OF_STRANGERS = Duration.ofMinutes(2);
    private static final int LONGEST = 200;

    private final PeopleMapper people;
    private final PasswordEncoder encoder;
    private final Clock clock;
    private final SecondStep secondStep;
    private final SecurityLog log;
    private final String nobodysHash;
    private final Cache<String, Bucket> attempts =
            Caffeine.newBuilder().maximumSize(100_000).expireAfterAccess(REFILL).build();

    SignIn(PeopleMapper people, PasswordEncoder encoder, Clock clock, SecondStep secondStep, SecurityLog log) {
        this.people = people;
        this.encoder = encoder;
        this.clock = clock;
        this.secondStep = secondStep;
        this.log = log;
        this.nobodysHash = encoder.encode("nobody");
    }

    /** How an attempt ended. */
    public sealed interface Result {
        record Welcome(Person person) implements Result {
        }

        /** The password was right; a code is asked for. */
        record SecondStepToCome(Person person) implements Result {
        }

        record Wrong() implements Result {
        }

        record TooManyAttempts() implements Result {
        }
    }

    /** @param laptop the secret mark of the laptop, a random key in its cookie; anything else for one that has none */
    public Result teacher(String email, String password, String laptop) {
        if (tooLong(email, password)) {
            return new Result.Wrong();
        }
        String account = email.strip().toLowerCase(Locale.ROOT);
        Result result = attempt("teachers", people.teacherByEmail(account).map(List::of).orElse(List.of()), password, laptop);
        return result instanceof Result.Welcome welcome && secondStep.isSet(welcome.person()) ? new Result.SecondStepToCome(welcome.person()) : result;
    }

    /** The second step of somebody whose password was right. */
    public Result secondStep(Person person, String code) {
        Bucket tries = bucket(account(person.id()) + " code", ATTEMPTS, REFILL);
        if (!tries.tryConsume(1)) {
            return new Result.TooManyAttempts();
        }
        if (tooLong(code) || !secondStep.passes(person, code)) {
            log.note(person.schoolId(), SecurityLog.Kind.REFUSED, null, person.id(), null);
            return new Result.Wrong();
        }
        tries.addTokens(1);
        return new Result.Welcome(person);
    }

    /**
     * Passphrases are compared without regard to case and to the spaces and hyphens between the words.
     *
     * @param laptop as with {@link #teacher}
     */
    public Result student(String classCode, String name, String passphrase, String laptop) {
        if (tooLong(classCode, name, passphrase)) {
            return new Result.Wrong();
        }
        String code = classCode.strip().toUpperCase(Locale.ROOT);
        List<WithSecret> candidates = people.students(code, Evened.text(name));
        return attempt("class " + (people.classCodeExists(code) ? code : ""), candidates, plain(passphrase), laptop);
    }

    /** Before anything is kept of it. */
    private static boolean tooLong(String... typed) {
        return Stream.of(typed).anyMatch(text -> text.length() > LONGEST);
    }

    /** How a student's passphrase is written before it is hashed or compared. */
    public static String plain(String passphrase) {
        return Evened.text(passphrase).toLowerCase(Locale.ROOT).replaceAll("[ -]+", " ");
    }

    /** Lets somebody try again at once. */
    public void unlock(long personId) {
        attempts.invalidate(account(personId));
    }

    /** Whether somebody who is signed in knows their secret; tried as often as a sign-in may be. */
    public boolean proves(Person person, String secret) {
        Bucket tries = bucket(account(person.id()) + " again", ATTEMPTS, REFILL);
        if (tooLong(secret) || !tries.tryConsume(1)) {
            return false;
        }
        boolean right = people.withSecret(person.id()).filter(found -> encoder.matches(person.isTeacher() ? secret : plain(secret), found.secretHash())).isPresent();
        if (right) {
            tries.addTokens(1);
        } else {
            log.note(person.schoolId(), SecurityLog.Kind.REFUSED, person.id(), null, null);
        }
        return right;
    }

    private Result attempt(String group, List<WithSecret> candidates, String secret, String laptop) {
        String mark = RandomKey.is(laptop) ? Secrets.hash(laptop) : null;
        Set<Long> known = mark == null ? Set.of() : people.knownOnLaptop(mark);
        boolean stranger = candidates.stream().noneMatch(candidate -> known.contains(candidate.id()));
        if (stranger && !bucket("strangers " + group, ATTEMPTS_OF_STRANGERS, REFILL_OF_STRANGERS).tryConsume(1)) {
            return new Result.TooManyAttempts();
        }
        if (candidates.isEmpty()) {
            encoder.matches(secret, nobodysHash);
            return new Result.Wrong();
        }
        List<WithSecret> open = candidates.stream().filter(candidate -> bucketOf(candidate, known, mark).tryConsume(1)).toList();
        if (open.isEmpty()) {
            return new Result.TooManyAttempts();
        }
        Optional<WithSecret> match = open.stream().filter(candidate -> encoder.matches(secret, candidate.secretHash())).findFirst();
        if (match.isEmpty()) {
            open.forEach(candidate -> log.note(candidate.schoolId(), SecurityLog.Kind.REFUSED, null, candidate.id(), null));
            return new Result.Wrong();
        }
        people.passphraseUsed(match.get().id());
        // whoever knows the secret has used nothing up
        bucketOf(match.get(), known, mark).addTokens(1);
        if (stranger) {
            bucket("strangers " + group, ATTEMPTS_OF_STRANGERS, REFILL_OF_STRANGERS).addTokens(1);
        }
        if (mark != null) {
            people.rememberLaptop(mark, match.get().id(), clock.instant());
        }
        return new Result.Welcome(match.get().person());
    }

    private Bucket bucketOf(WithSecret candidate, Set<Long> known, String mark) {
        String account = account(candidate.id());
        return bucket(known.contains(candidate.id()) ? account + " " + mark : account, ATTEMPTS, REFILL);
    }

    private static String account(long personId) {
        return "person " + personId;
    }

    private Bucket bucket(String name, int capacity, Duration refill) {
        return attempts.get(name, key -> Bucket.builder().addLimit(limit -> limit.capacity(capacity).refillGreedy(capacity, refill)).build());
    }
}
