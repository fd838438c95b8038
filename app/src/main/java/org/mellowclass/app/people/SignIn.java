package org.mellowclass.app.people;

import java.time.Duration;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import io.github.bucket4j.Bucket;
import org.mellowclass.app.people.PeopleMapper.WithSecret;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Service;

/**
 * Checks passwords and passphrases. Attempts are limited by account and not by network address, since a whole school shares
 * one; an account that does not exist costs as much time as one that does.
 */
@Service
public class SignIn {

    private static final int ATTEMPTS = 6;
    private static final Duration REFILL = Duration.ofMinutes(5);

    private final PeopleMapper people;
    private final PasswordEncoder encoder;
    private final String nobodysHash;
    private final Cache<String, Bucket> attempts =
            Caffeine.newBuilder().maximumSize(100_000).expireAfterAccess(REFILL).build();

    SignIn(PeopleMapper people, PasswordEncoder encoder) {
        this.people = people;
        this.encoder = encoder;
        this.nobodysHash = encoder.encode("nobody");
    }

    /** How an attempt ended. */
    public sealed interface Result {
        record Welcome(Person person) implements Result {
        }

        record Wrong() implements Result {
        }

        record TooManyAttempts() implements Result {
        }
    }

    public Result teacher(String email, String password) {
        String account = email.strip().toLowerCase(Locale.ROOT);
        return attempt("teacher " + account, people.teacherByEmail(account).map(List::of).orElse(List.of()), password);
    }

    /** Passphrases are compared without regard to case and to the spaces and hyphens between the words. */
    public Result student(String classCode, String name, String passphrase) {
        String code = classCode.strip().toUpperCase(Locale.ROOT);
        String account = "student " + code + " " + name.strip().toLowerCase(Locale.ROOT);
        return attempt(account, people.students(code, name.strip()), plain(passphrase));
    }

    /** How a student's passphrase is written before it is hashed or compared. */
    public static String plain(String passphrase) {
        return passphrase.strip().toLowerCase(Locale.ROOT).replaceAll("[\\s-]+", " ");
    }

    private Result attempt(String account, List<WithSecret> candidates, String secret) {
        Bucket bucket = attempts.get(account, key -> Bucket.builder()
                .addLimit(limit -> limit.capacity(ATTEMPTS).refillGreedy(ATTEMPTS, REFILL)).build());
        if (!bucket.tryConsume(1)) {
            return new Result.TooManyAttempts();
        }
        if (candidates.isEmpty()) {
            encoder.matches(secret, nobodysHash);
            return new Result.Wrong();
        }
        Optional<WithSecret> match = candidates.stream()
                .filter(candidate -> encoder.matches(secret, candidate.secretHash())).findFirst();
        if (match.isEmpty()) {
            return new Result.Wrong();
        }
        attempts.invalidate(account);
        people.passphraseUsed(match.get().id());
        return new Result.Welcome(match.get().person());
    }
}
