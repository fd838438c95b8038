package org.mellowclass.app.account;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Optional;

import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.mellowclass.app.MellowProperties;
import org.mellowclass.app.outbox.Outbox;
import org.mellowclass.app.people.Person;
import org.mellowclass.app.people.SchoolOffice;
import org.mellowclass.app.people.Secrets;
import org.mellowclass.app.people.SignedIn;
import org.mellowclass.app.securitylog.SecurityLog;
import org.mellowclass.app.store.RandomKey;
import org.mellowclass.app.web.NotFound;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.util.UriComponentsBuilder;

/** New passwords for teachers who have forgotten theirs, by links that cannot be guessed, work once and for an hour. */
@Service
@Transactional
class PasswordResets {

    private static final Duration VALID = Duration.ofHours(1);
    private static final int MOST_AT_ONCE = 3;

    private final ResetMapper resets;
    private final SchoolOffice office;
    private final NewPasswords passwords;
    private final SignedIn signedIn;
    private final Outbox outbox;
    private final SecurityLog log;
    private final MellowProperties properties;
    private final Clock clock;

    PasswordResets(ResetMapper resets, SchoolOffice office, NewPasswords passwords, SignedIn signedIn, Outbox outbox, SecurityLog log, MellowProperties properties, Clock clock) {
        this.resets = resets;
        this.office = office;
        this.passwords = passwords;
        this.signedIn = signedIn;
        this.outbox = outbox;
        this.log = log;
        this.properties = properties;
        this.clock = clock;
    }

    @Mapper
    interface ResetMapper {

        @Insert("INSERT INTO password_reset (key_hash, person_id, asked_at) VALUES (#{keyHash}, #{personId}, #{at})")
        void add(String keyHash, long personId, Instant at);

        @Select("SELECT count(*) FROM password_reset WHERE person_id = #{personId} AND asked_at > #{after}")
        int asked(long personId, Instant after);

        @Select("SELECT person_id FROM password_reset WHERE key_hash = #{keyHash} AND used_at IS NULL AND asked_at > #{after}")
        Optional<Long> find(String keyHash, Instant after);

        @Update("UPDATE password_reset SET used_at = #{at} WHERE person_id = #{personId} AND used_at IS NULL")
        int useAll(long personId, Instant at);
    }

    /** Sends a link, if there is such a teacher; whoever asks is not told whether there is. The school's lead hands it on, as all mail of this machine. */
    void ask(String email) {
        Instant now = clock.instant();
        office.teacher(email).filter(teacher -> resets.asked(teacher.id(), now.minus(VALID)) < MOST_AT_ONCE).ifPresent(teacher -> {
            String key = RandomKey.next();
            resets.add(Secrets.hash(key), teacher.id(), now);
            log.note(teacher.schoolId(), SecurityLog.Kind.RESET_ASKED, null, teacher.id(), null);
            String link = UriComponentsBuilder.fromUri(properties.address()).path("/sign-in/new-password/{key}").buildAndExpand(key).toUriString();
            outbox.send(office.lead(teacher.schoolId()), email.strip(), "A new password",
                    teacher.name() + " has asked for a new password. The link works once, for an hour. If it was not you, do nothing.\n" + link);
        });
    }

    /** Whose password a link sets. */
    @Transactional(readOnly = true)
    public Person find(String key) {
        return resets.find(Secrets.hash(key), clock.instant().minus(VALID)).flatMap(office::person).orElseThrow(NotFound::new);
    }

    /** Sets it; nobody stays signed in with the old one, and other links end. */
    void set(String key, String password) {
        Person teacher = find(key);
        passwords.set(teacher, password);
        resets.useAll(teacher.id(), clock.instant());
        signedIn.end(teacher.id());
    }
}
