package org.mellowclass.app.people;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Optional;

import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.mellowclass.app.store.RandomKey;
import org.mellowclass.app.web.NotFound;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Invitations to teach at the school: links that cannot be guessed, that work once and for a week. */
@Service
@Transactional
public class Invitations {

    private static final Duration VALID = Duration.ofDays(7);

    private final InvitationMapper invitations;
    private final Access access;
    private final SchoolOffice office;
    private final Clock clock;

    Invitations(InvitationMapper invitations, Access access, SchoolOffice office, Clock clock) {
        this.invitations = invitations;
        this.access = access;
        this.office = office;
        this.clock = clock;
    }

    /** An invitation that still works. */
    public record Invitation(long id, long schoolId, long classId, String email, String schoolName, String className,
                             String invitedBy) {
    }

    @Mapper
    interface InvitationMapper {

        @Insert("""
                INSERT INTO invitation (school_id, class_id, invited_by, email, public_key, created_at)
                VALUES (#{schoolId}, #{classId}, #{invitedBy}, #{email}, #{key}, #{at})
                """)
        void add(long schoolId, long classId, long invitedBy, String email, String key, Instant at);

        @Select("""
                SELECT i.id, i.school_id, i.class_id, i.email, s.name AS school_name, c.name AS class_name, p.name AS invited_by
                FROM invitation i JOIN school s ON s.id = i.school_id JOIN school_class c ON c.id = i.class_id
                JOIN person p ON p.id = i.invited_by
                WHERE i.public_key = #{key} AND i.used_at IS NULL AND i.created_at > #{after}
                """)
        Optional<Invitation> find(String key, Instant after);

        @Update("UPDATE invitation SET used_at = #{at} WHERE id = #{id} AND used_at IS NULL")
        int use(long id, Instant at);
    }

    /** Invites somebody to teach a class too, and returns the key of the link. */
    public String invite(Person viewer, long classId, String email) {
        SchoolClass schoolClass = access.taughtClass(viewer, classId);
        String key = RandomKey.next();
        invitations.add(schoolClass.schoolId(), classId, viewer.id(), SchoolOffice.address(email), key, clock.instant());
        return key;
    }

    @Transactional(readOnly = true)
    public Invitation find(String key) {
        return invitations.find(key, clock.instant().minus(VALID)).orElseThrow(NotFound::new);
    }

    /** Makes the invited teacher, who may then sign in. */
    Person accept(String key, String name, String password) {
        Invitation invitation = find(key);
        if (invitations.use(invitation.id(), clock.instant()) == 0) {
            throw new NotFound();
        }
        Person teacher = office.addTeacher(invitation.schoolId(), name, invitation.email(), password);
        office.addTeacherToClass(invitation.classId(), teacher);
        return teacher;
    }
}
