package org.mellowclass.app.people;

import java.security.InvalidKeyException;
import java.security.Key;
import java.security.MessageDigest;
import java.security.SecureRandom;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import java.util.OptionalLong;

import javax.crypto.spec.SecretKeySpec;

import com.eatthepath.otp.TimeBasedOneTimePasswordGenerator;
import org.apache.commons.codec.binary.Base32;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.mellowclass.app.store.RandomKey;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * The second step of a teacher's sign-in, for those who want it: six digits that change every half minute, from a secret that an
 * authenticator holds (RFC 6238, with HMAC-SHA-1, as all of them have it). Each code works once.
 */
@Service
@Transactional
public class SecondStep {

    /** RFC 4226, section 4: as long as the hash. */
    private static final int SECRET_BYTES = 20;
    /** A clock may be one step off (RFC 6238, section 5.2). */
    private static final int STEPS_OFF = 1;

    private final TimeBasedOneTimePasswordGenerator codes = new TimeBasedOneTimePasswordGenerator();
    private final SecureRandom random = new SecureRandom();
    private final StepMapper steps;
    private final Clock clock;

    SecondStep(StepMapper steps, Clock clock) {
        this.steps = steps;
        this.clock = clock;
    }

    @Mapper
    interface StepMapper {

        @Select("SELECT step_secret FROM person WHERE id = #{personId} AND step_secret IS NOT NULL")
        Optional<String> secret(long personId);

        @Update("UPDATE person SET step_used = #{step} WHERE id = #{personId} AND (step_used IS NULL OR step_used < #{step})")
        int use(long personId, long step);

        @Update("UPDATE person SET step_secret = #{secret}, step_used = NULL, step_off_hash = #{offHash} WHERE id = #{personId}")
        void set(long personId, String secret, String offHash);

        @Update("UPDATE person SET step_secret = NULL, step_used = NULL, step_off_hash = NULL WHERE id = #{personId} AND step_off_hash = #{offHash}")
        int endWith(long personId, String offHash);
    }

    @Transactional(readOnly = true)
    public boolean isSet(Person person) {
        return steps.secret(person.id()).isPresent();
    }

    /** A new secret, in Base32 as authenticators take it. */
    public String offer() {
        byte[] secret = new byte[SECRET_BYTES];
        random.nextBytes(secret);
        return new Base32().encodeToString(secret).replace("=", "");
    }

    /** Sets it, if the code shows that an authenticator has the secret; returns the key that turns it off when that is lost. */
    public Optional<String> set(Person person, String secret, String code) {
        OptionalLong step = stepOf(secret, code);
        if (step.isEmpty()) {
            return Optional.empty();
        }
        String offKey = RandomKey.next();
        steps.set(person.id(), secret, Secrets.hash(offKey));
        steps.use(person.id(), step.getAsLong());
        return Optional.of(offKey);
    }

    public void end(Person person) {
        steps.set(person.id(), null, null);
    }

    /** Whether somebody may pass: by a code that was not used yet, or by the key that turns the second step off. */
    boolean passes(Person person, String typed) {
        String plain = typed.replaceAll("[\\s-]", "");
        if (RandomKey.is(plain)) {
            return steps.endWith(person.id(), Secrets.hash(plain)) == 1;
        }
        OptionalLong step = steps.secret(person.id()).map(secret -> stepOf(secret, plain)).orElse(OptionalLong.empty());
        return step.isPresent() && steps.use(person.id(), step.getAsLong()) == 1;
    }

    /** Of which half minute since 1970 a code is. */
    private OptionalLong stepOf(String secret, String code) {
        Key key = new SecretKeySpec(new Base32().decode(secret), codes.getAlgorithm());
        Duration length = codes.getTimeStep();
        Instant now = clock.instant();
        for (int off = -STEPS_OFF; off <= STEPS_OFF; off++) {
            Instant then = now.plus(length.multipliedBy(off));
            if (MessageDigest.isEqual(code(key, then).getBytes(), code.strip().getBytes())) {
                return OptionalLong.of(then.getEpochSecond() / length.toSeconds());
            }
        }
        return OptionalLong.empty();
    }

    private String code(Key key, Instant at) {
        try {
            return codes.generateOneTimePasswordString(key, at);
        } catch (InvalidKeyException e) {
            throw new IllegalStateException(e);
        }
    }
}
